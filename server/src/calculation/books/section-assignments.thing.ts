import { sql } from 'drizzle-orm';
import { counted } from '#contract/messages';
import { ThingOf, type Thing } from '#server/changes';
import { intArray, Refusal, type Queries } from '#server/platform';
import { BooksRepository, type NumberedAssignment } from './books.repository.js';

/** All assignments of a section, in every period, by number; null for a section that has none. */
export interface SectionAssignments {
  readonly assignments: readonly NumberedAssignment[];
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
  constructor(private readonly books: BooksRepository) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SectionAssignments>> {
    const all = await this.books.assignmentsOfSections(queries, ids.map(Number));
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

  write(queries: Queries, values: ReadonlyMap<string, SectionAssignments | null>): Promise<void> {
    const all = [...values.values()].flatMap((value) => value?.assignments ?? []);
    return this.books.replaceOfSections(queries, [...values.keys()].map(Number), all);
  }
}
