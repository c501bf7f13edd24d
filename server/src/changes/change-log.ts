import { Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import { entryHash, type ChangeOfEntry } from '#core/changes';
import { Clock, tables, type Actor, type Queries } from '#server/platform';
import { LogRepository, type NewLogRow } from './log.repository.js';
import { sha256 } from './sha256.js';

/** What is to be logged: the action in words, the thing it was done to, and that thing before and after. */
export interface Change {
  readonly action: string;
  /** Such as "grade 4711" or "scale 2". */
  readonly thing: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** The only writer of the log. It writes in the transaction of the change itself: both are kept or neither. */
@Injectable()
export class ChangeLog {
  constructor(
    private readonly entries: LogRepository,
    private readonly clock: Clock,
  ) {}

  /** In the name of somebody who is not there now, such as the one who started a run. */
  async recordOf(queries: Queries, personId: number, changes: readonly Change[]): Promise<void> {
    const { people } = tables;
    const [person] = await queries
      .select({ name: sql<string>`${people.givenName} || ' ' || ${people.familyName}` })
      .from(people)
      .where(eq(people.id, personId));
    await this.record(queries, { personId, name: person!.name }, changes);
  }

  /** Entries of one call are one change. @returns its number; null where there is nothing to log */
  async record(
    queries: Queries,
    actor: Pick<Actor, 'personId' | 'name'>,
    changes: readonly Change[],
    facts: Omit<ChangeOfEntry, 'id'> = { undoes: null, why: null },
  ): Promise<number | null> {
    if (changes.length === 0) return null;
    const head = await this.entries.headLocked(queries);
    const change: ChangeOfEntry = { id: await this.entries.nextChangeId(queries), ...facts };
    const at = this.clock.now();
    let previousHash = head.hash;
    const rows = changes.map(({ action, thing, before, after }): NewLogRow => {
      const entry = { actor: actor.name, action, thing, before: asJson(before), after: asJson(after) };
      const hash = entryHash({ ...entry, at: at.toISOString(), change }, previousHash, sha256);
      const row = {
        ...entry,
        at,
        actorId: actor.personId,
        previousHash,
        hash,
        changeId: change.id,
        undoes: change.undoes,
        why: change.why,
      };
      previousHash = hash;
      return row;
    });
    await this.entries.append(queries, rows, head.entries);
    return change.id;
  }
}

/** As the database will give it back: dates as text, undefined fields gone. */
function asJson(value: unknown): unknown {
  return value === undefined ? null : (JSON.parse(JSON.stringify(value)) as unknown);
}
