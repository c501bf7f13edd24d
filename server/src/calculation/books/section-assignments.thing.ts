import { sql } from 'drizzle-orm';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import { counted } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { intArray, Refusal, type Queries } from '#server/platform';
import type { AssignmentValue } from './assignment.thing.js';

/** All assignments of a section, in every period, by number; null for a section that has none. */
export interface SectionAssignments {
  readonly assignments: readonly (AssignmentValue & { readonly id: number })[];
}

/**
 * The assignments that a section begins with, as it is split from another one. Once somebody has changed one of them or made
 * another, they are no longer what the section began with.
 */
@ThingOf({
  kind: 'section-assignments',
  called: 'the assignments',
  change: 'change-people',
  see: 'read-grades',
  at: (id) => ({ kind: 'section', id: Number(id) }),
})
export class SectionAssignmentsThing implements Thing<SectionAssignments> {
  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SectionAssignments>> {
    const { rows } = await queries.execute<SectionAssignments['assignments'][number] & Record<string, unknown>>(sql`
      SELECT id, section_id AS "sectionId", period_id AS "periodId", category_id AS "categoryId", name, possible::text,
        due_on::text AS "dueOn", is_extra AS "isExtra", is_counted AS "isCounted", is_published AS "isPublished",
        given_to AS "givenTo"
      FROM assignments WHERE section_id = ANY(${intArray(ids.map(Number))}) ORDER BY id`);
    const all = rows.map((row) => ({ ...row, possible: formatAtLeast(decimalOrThrow(row.possible), 0) }));
    return new Map(
      ids.flatMap((id) => {
        const own = all.filter(({ sectionId }) => String(sectionId) === id);
        return own.length > 0 ? [[id, { assignments: own }]] : [];
      }),
    );
  }

  /** @throws Refusal in-use where any of them has a score */
  async check(queries: Queries, values: ReadonlyMap<string, SectionAssignments | null>): Promise<void> {
    const { rows } = await queries.execute<{ name: string; count: number }>(sql`
      SELECT a.name, count(*)::int AS count FROM assignments a JOIN scores s ON s.assignment_id = a.id
      WHERE a.section_id = ANY(${intArray([...values.keys()].map(Number))}) AND coalesce(s.points::text, s.flag) IS NOT NULL
      GROUP BY a.id, a.name ORDER BY a.id LIMIT 1`);
    const [used] = rows;
    if (used)
      throw new Refusal('in-use', {
        what: 'The assignment',
        name: used.name,
        uses: counted(used.count, 'score'),
        instead: 'Remove its scores first.',
      });
  }

  async write(queries: Queries, values: ReadonlyMap<string, SectionAssignments | null>): Promise<void> {
    const ids = intArray([...values.keys()].map(Number));
    await queries.execute(sql`
      DELETE FROM scores s USING assignments a WHERE a.id = s.assignment_id AND a.section_id = ANY(${ids})`);
    await queries.execute(sql`DELETE FROM assignments WHERE section_id = ANY(${ids})`);
    const all = [...values.values()].flatMap((value) => value?.assignments ?? []);
    await queries.execute(sql`
      INSERT INTO assignments (id, section_id, period_id, category_id, name, possible, due_on, is_extra, is_counted, is_published,
        given_to)
      SELECT n.id, n."sectionId", n."periodId", n."categoryId", n.name, n.possible, n."dueOn", n."isExtra", n."isCounted",
        n."isPublished", nullif(n."givenTo", 'null'::jsonb)
      FROM jsonb_to_recordset(${JSON.stringify(all)}::jsonb) AS n (id int, "sectionId" int, "periodId" int, "categoryId" int,
        name text, possible numeric, "dueOn" date, "isExtra" boolean, "isCounted" boolean, "isPublished" boolean, "givenTo" jsonb)`);
  }
}
