import { Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import { spokenName, tables, type Queries } from '#server/platform';

const { nightlyAudits, people } = tables;

/** When the periods of a school are audited by themselves, and in whose name. */
export interface NightlyAudit {
  /** In the district's zone, such as "02:30". */
  readonly at: string;
  readonly setBy: number;
  /** ISO instant. */
  readonly setAt: string;
}

/** With the name of whoever set it, as it is spoken. */
export interface NamedNightlyAudit {
  readonly value: NightlyAudit;
  readonly name: string;
}

@Injectable()
export class NightlyAuditsRepository {
  async ofSchool(queries: Queries, schoolId: number): Promise<NamedNightlyAudit | null> {
    const [row] = await queries
      .select({ set: nightlyAudits, name: spokenName })
      .from(nightlyAudits)
      .innerJoin(people, eq(people.id, nightlyAudits.setBy))
      .where(eq(nightlyAudits.schoolId, schoolId));
    if (!row) return null;
    const { at, setBy, setAt } = row.set;
    return { value: { at, setBy, setAt: setAt.toISOString() }, name: row.name };
  }

  async set(queries: Queries, schoolId: number, nightly: NightlyAudit | null): Promise<void> {
    await queries.delete(nightlyAudits).where(eq(nightlyAudits.schoolId, schoolId));
    if (nightly) await queries.insert(nightlyAudits).values({ schoolId, ...nightly, setAt: new Date(nightly.setAt) });
  }

  /** Periods in which grades are posted at an instant and that are not sealed: when they were last audited, or it was set. */
  async waiting(queries: Queries, now: Date) {
    const { rows } = await queries.execute<{ periodId: number; at: string; setBy: number; last: string }>(sql`
      SELECT p.id AS "periodId", n.at, n.set_by AS "setBy", to_json(greatest(
        n.set_at, (SELECT max(started_at) FROM audit_runs WHERE period_id = p.id),
        (SELECT started_at FROM audit_tasks WHERE period_id = p.id))) AS last
      FROM nightly_audits n JOIN periods p ON p.school_id = n.school_id
      WHERE NOT EXISTS (SELECT FROM seals WHERE period_id = p.id)
        AND EXISTS (SELECT FROM posting_windows w WHERE w.period_id = p.id
                    AND w.opens_at <= ${now.toISOString()} AND coalesce(w.grace_until, w.closes_at) > ${now.toISOString()})
      ORDER BY p.id`);
    return rows.map(({ last, ...row }) => ({ ...row, last: new Date(last) }));
  }
}
