import { Injectable } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import { entryHash, type ChangeOfEntry } from '#core/changes';
import { Clock, tables, type Queries, spokenName } from '#server/platform';
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

/** Who did it; nobody's number is null. */
export interface LoggedActor {
  readonly personId: number | null;
  readonly name: string;
  /** Who it was where somebody looked at what another person sees. */
  readonly behind?: { readonly personId: number; readonly name: string } | undefined;
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
    const [person] = await queries.select({ name: spokenName }).from(people).where(eq(people.id, personId));
    await this.record(queries, { personId, name: person!.name }, changes);
  }

  /** Entries of one call are one change. @returns its number; null where there is nothing to log */
  async record(
    queries: Queries,
    actor: LoggedActor,
    changes: readonly Change[],
    facts: Omit<ChangeOfEntry, 'id'> = { undoes: null, why: null },
  ): Promise<number | null> {
    if (changes.length === 0) return null;
    const head = await this.entries.headLocked(queries);
    const change = { id: await this.entries.nextChangeId(queries), ...facts };
    await this.append(queries, head, actor, changes, change);
    return change.id;
  }

  /** What happened and changed nothing, such as that somebody signed in or read a record; it is no change. */
  async note(queries: Queries, actor: LoggedActor, events: readonly Omit<Change, 'before'>[]): Promise<void> {
    const head = await this.entries.headLocked(queries);
    const entries = events.map((event) => ({ ...event, before: null }));
    await this.append(queries, head, actor, entries, null);
  }

  /** As `note`, unless the same person did the same to the same thing shortly before. @param shortly milliseconds */
  async noteUnlessJust(
    queries: Queries,
    actor: LoggedActor,
    event: Omit<Change, 'before'>,
    shortly: number,
  ): Promise<void> {
    const since = new Date(this.clock.now().getTime() - shortly);
    if (!(await this.entries.hasNoted(queries, (actor.behind ?? actor).personId, event, since)))
      await this.note(queries, actor, [event]);
  }

  private async append(
    queries: Queries,
    head: { readonly entries: number; readonly hash: string },
    actor: LoggedActor,
    changes: readonly Change[],
    change: ChangeOfEntry | null,
  ): Promise<void> {
    const at = this.clock.now();
    const { personId, name } = actor.behind ?? actor;
    let previousHash = head.hash;
    const rows = changes.map(({ action, thing, before, after }): NewLogRow => {
      const entry = {
        actorId: personId,
        actor: name,
        action,
        thing,
        before: asJson(before),
        after: asJson(after),
      };
      const hash = entryHash({ ...entry, at: at.toISOString(), change }, previousHash, sha256);
      const row = {
        ...entry,
        at,
        previousHash,
        hash,
        changeId: change?.id ?? null,
        undoes: change?.undoes ?? null,
        why: change?.why ?? null,
      };
      previousHash = hash;
      return row;
    });
    await this.entries.append(queries, rows, head.entries);
  }
}

/** As the database will give it back: dates as text, undefined fields gone. */
function asJson(value: unknown): unknown {
  return value === undefined ? null : (JSON.parse(JSON.stringify(value)) as unknown);
}
