import { sql, type SQL } from 'drizzle-orm';

/** Who teach a section beside its teacher, where `section` is what the question calls its table. */
export const coTeachersOf = (section: string): SQL<number[]> => sql<number[]>`(
  SELECT coalesce(array_agg(DISTINCT t.person_id), '{}') FROM section_co_teachers t
  WHERE t.section_id = ${sql.raw(section)}.id AND t.person_id <> ${sql.raw(section)}.teacher_id)`;
