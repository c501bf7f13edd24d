import { Injectable } from '@nestjs/common';
import { and, asc, desc, eq, gt, gte, lt, sql, type SQL } from 'drizzle-orm';
import { CopyReader, tables, type Queries, nameOrderOf, personNameOf, textList } from '#server/platform';

const { changeLog, logHead } = tables;

export type LogRow = typeof changeLog.$inferSelect;
export type NewLogRow = typeof changeLog.$inferInsert;

/** Which entries are looked for; each that is given narrows them. */
export interface LogFilter {
  /** Kind and id, or a kind alone. */
  readonly thing?: string | undefined;
  readonly personId?: number | undefined;
  /** A part of the action or of a name. */
  readonly text?: string | undefined;
  /** ISO instants, the first one included. */
  readonly from?: string | undefined;
  readonly until?: string | undefined;
}

/** A change with as many of its things as are shown of it. */
export interface ChangeRows {
  readonly id: number;
  readonly count: number;
  /** The kinds of all its things. */
  readonly kinds: readonly string[];
  readonly rows: readonly LogRow[];
}

/** How the action of a reading begins, before the part that was read. */
export const readingPrefix = 'read ';

/** As many things of a change as are told of at once. */
const thingsAtOnce = 12;

/** The only place that reads and writes the log's table. */
@Injectable()
export class LogRepository {
  constructor(private readonly copies: CopyReader) {}

  /** Where the log ends, held until the transaction ends, so that two writers do not go on from the same entry. */
  async headLocked(queries: Queries): Promise<{ readonly entries: number; readonly hash: string }> {
    const [head] = await queries.select().from(logHead).where(eq(logHead.id, 1)).for('update');
    return head!;
  }

  async head(queries: Queries) {
    const [head] = await queries.select().from(logHead).where(eq(logHead.id, 1));
    return head!;
  }

  /** The first entry after the one that the log says it ends with; null where there is none, as there should be. */
  async beyondHead(queries: Queries): Promise<number | null> {
    const { rows } = await queries.execute<{ id: number | null }>(
      sql`SELECT min(id) AS id FROM change_log WHERE id > (SELECT last_id FROM log_head WHERE id = 1)`,
    );
    return rows[0]!.id;
  }

  async append(queries: Queries, rows: readonly NewLogRow[], entriesBefore: number): Promise<void> {
    let lastId = 0;
    for (let at = 0; at < rows.length; at += 1000) {
      // One parameter however many entries: the statement is planned once, and takes no time to put together.
      const { rows: written } = await queries.execute<{ id: number }>(sql`
        WITH written AS (
          INSERT INTO change_log (at, actor_id, actor, action, thing, before, after, previous_hash, hash, change_id, undoes, why)
          SELECT at, "actorId", actor, action, thing, before, after, "previousHash", hash, "changeId", undoes, why
          FROM ROWS FROM (jsonb_to_recordset(${JSON.stringify(rows.slice(at, at + 1000))}::jsonb) AS (
            at timestamptz, "actorId" int, actor text, action text, thing text, before jsonb, after jsonb, "previousHash" text,
            hash text, "changeId" int, undoes int, why text)) WITH ORDINALITY AS entry
          ORDER BY ordinality RETURNING id)
        SELECT max(id) AS id FROM written`);
      lastId = written[0]!.id;
    }
    await queries
      .update(logHead)
      .set({ entries: entriesBefore + rows.length, lastId, hash: rows.at(-1)!.hash })
      .where(eq(logHead.id, 1));
  }

  /** When somebody read a thing, and what of it, newest first. */
  async readingsOf(queries: Queries, thing: string, most: number): Promise<LogRow[]> {
    return queries
      .select()
      .from(changeLog)
      .where(and(eq(changeLog.thing, thing), sql`action LIKE ${`${readingPrefix}%`}`))
      .orderBy(desc(changeLog.id))
      .limit(most);
  }

  async nextChangeId(queries: Queries): Promise<number> {
    const { rows } = await queries.execute<{ id: number }>(sql`SELECT nextval('change_numbers')::int AS id`);
    return rows[0]!.id;
  }

  /** Everything that a change did, last first. */
  ofChange(queries: Queries, changeId: number): Promise<LogRow[]> {
    return queries.select().from(changeLog).where(eq(changeLog.changeId, changeId)).orderBy(desc(changeLog.id));
  }

  /** Whether somebody did something to a thing since then. */
  async hasNoted(
    queries: Queries,
    actorId: number | null,
    { action, thing }: { readonly action: string; readonly thing: string },
    since: Date,
  ): Promise<boolean> {
    const [found] = await queries
      .select({ id: changeLog.id })
      .from(changeLog)
      .where(
        and(
          eq(changeLog.thing, thing),
          eq(changeLog.action, action),
          sql`${changeLog.actorId} IS NOT DISTINCT FROM ${actorId}`,
          gte(changeLog.at, since),
        ),
      )
      .limit(1);
    return found !== undefined;
  }

  /** Who last did something to a thing. */
  async lastActor(queries: Queries, thing: string): Promise<string | undefined> {
    const [last] = await queries
      .select({ actor: changeLog.actor })
      .from(changeLog)
      .where(eq(changeLog.thing, thing))
      .orderBy(desc(changeLog.id))
      .limit(1);
    return last?.actor;
  }

  /** Who last did what to each of some things after a change. */
  lastSince(queries: Queries, things: readonly string[], changeId: number) {
    return queries
      .selectDistinctOn([changeLog.thing], { thing: changeLog.thing, actor: changeLog.actor, action: changeLog.action })
      .from(changeLog)
      .where(and(sql`${changeLog.thing} IN ${textList(things)}`, gt(changeLog.changeId, changeId)))
      .orderBy(changeLog.thing, desc(changeLog.id));
  }

  /** The newest changes among the entries that a condition finds, newest first. */
  async newestChanges(queries: Queries, condition: SQL, limit: number): Promise<ChangeRows[]> {
    const { rows: found } = await queries.execute<{ id: number; count: number; kinds: string[] }>(sql`
      SELECT change_id AS id, count(*)::int AS count, array_agg(DISTINCT regexp_replace(thing, ' [^ ]*$', '')) AS kinds
      FROM change_log WHERE change_id IN (
        SELECT change_id FROM change_log WHERE change_id IS NOT NULL AND ${condition}
        GROUP BY change_id ORDER BY change_id DESC LIMIT ${limit})
      GROUP BY change_id ORDER BY change_id DESC`);
    const shown = await queries
      .select()
      .from(changeLog)
      .where(
        sql`${changeLog.id} IN (SELECT id FROM (SELECT id, row_number() OVER (PARTITION BY change_id ORDER BY id) AS n
          FROM change_log WHERE change_id = ANY(${sql.raw(`'{${found.map(({ id }) => id).join(',')}}'::int[]`)})) AS own
          WHERE n <= ${thingsAtOnce})`,
      )
      .orderBy(asc(changeLog.id));
    return found.map((change) => ({ ...change, rows: shown.filter(({ changeId }) => changeId === change.id) }));
  }

  /** Which changes, that one or a later one, were undone by which. */
  async undone(queries: Queries, fromChangeId: number): Promise<{ readonly id: number; readonly undoes: number }[]> {
    const { rows } = await queries.execute<{ id: number; undoes: number }>(sql`
      SELECT DISTINCT change_id AS id, undoes FROM change_log WHERE undoes >= ${fromChangeId}`);
    return rows;
  }

  /** Entries that a filter finds, newest first, those before an entry. */
  page(queries: Queries, filter: LogFilter, before: number | undefined, limit: number): Promise<LogRow[]> {
    const { thing, personId, text, from, until } = filter;
    const isKind = thing !== undefined && !thing.includes(' ');
    return queries
      .select()
      .from(changeLog)
      .where(
        and(
          before === undefined ? undefined : lt(changeLog.id, before),
          thing === undefined
            ? undefined
            : isKind
              ? sql`${changeLog.thing} LIKE ${`${likeText(thing)} %`}`
              : eq(changeLog.thing, thing),
          personId === undefined ? undefined : eq(changeLog.actorId, personId),
          text === undefined ? undefined : hasWords(text),
          from === undefined ? undefined : sql`${changeLog.at} >= ${from}::timestamptz`,
          until === undefined ? undefined : sql`${changeLog.at} < ${until}::timestamptz`,
        ),
      )
      .orderBy(desc(changeLog.id))
      .limit(limit);
  }

  /** Everybody who ever changed something. */
  async people(queries: Queries): Promise<{ readonly id: number; readonly name: string }[]> {
    const { rows } = await queries.execute<{ id: number; name: string }>(sql`
      SELECT p.id, ${personNameOf('p')} AS name FROM people p
      WHERE p.kind <> 'student' AND EXISTS (SELECT FROM change_log WHERE actor_id = p.id)
      ORDER BY ${nameOrderOf('p')}, p.id`);
    return rows;
  }

  /** The next entries of the chain up to one of them, as text for the thread that checks them; instants as they were hashed. */
  chainTextAfter(id: number, lastId: number, limit: number): Promise<Buffer> {
    return this.copies.read(`
      SELECT id, to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
        actor_id, actor, action, thing, before, after, change_id, undoes, why, previous_hash, hash
      FROM change_log WHERE id > ${id} AND id <= ${lastId} ORDER BY id LIMIT ${limit}`);
  }
}

/** Entries whose action or thing has words that begin like those of a text; none where it has no word. */
function hasWords(text: string): SQL {
  const words = text.match(/[\p{L}\p{N}]+/gu);
  if (!words) return sql`false`;
  const query = words.map((word) => `${word}:*`).join(' & ');
  return sql`to_tsvector('simple', ${changeLog.action} || ' ' || ${changeLog.thing}) @@ to_tsquery('simple', ${query})`;
}

/** What a text means inside LIKE. */
function likeText(text: string): string {
  return text.replace(/[\\%_]/g, (sign) => `\\${sign}`);
}
