import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { desc, eq, sql } from 'drizzle-orm';
import { chainStart, entryHash, type ChangeOfEntry } from '#core/changes';
import { Clock, tables, type Actor, type Queries } from '#server/platform';

/** What is to be logged: the action in words, the thing it was done to, and that thing before and after. */
export interface Change {
  readonly action: string;
  /** Such as "grade 4711" or "scale 2". */
  readonly thing: string;
  readonly before: unknown;
  readonly after: unknown;
}

export const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

/** The only writer of the log. It writes in the transaction of the change itself: both are kept or neither. */
@Injectable()
export class ChangeLog {
  constructor(private readonly clock: Clock) {}

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
    const { rows: numbers } = await queries.execute<{ id: number }>(sql`SELECT nextval('change_numbers')::int AS id`);
    const change: ChangeOfEntry = { id: numbers[0]!.id, ...facts };
    // Two writers must not continue the chain from the same entry.
    await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext('change_log'))`);
    const [last] = await queries
      .select({ hash: tables.changeLog.hash })
      .from(tables.changeLog)
      .orderBy(desc(tables.changeLog.id))
      .limit(1);
    const at = this.clock.now();
    let previousHash = last?.hash ?? chainStart;
    const rows = changes.map(({ action, thing, before, after }) => {
      const entry = {
        at: at.toISOString(),
        actor: actor.name,
        action,
        thing,
        before: asJson(before),
        after: asJson(after),
      };
      const hash = entryHash({ ...entry, change }, previousHash, sha256);
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
    await queries.insert(tables.changeLog).values(rows);
    return change.id;
  }
}

/** As the database will give it back: dates as text, undefined fields gone. */
function asJson(value: unknown): unknown {
  return value === undefined ? null : (JSON.parse(JSON.stringify(value)) as unknown);
}
