import { sql } from 'drizzle-orm';
import { gradesOf, type ExchangeRow, type ExchangeVersion } from '#core/exchange';
import { firstRegistrarId } from '#server/people';
import type { Queries } from '#server/platform';
import { column, idOf, joinId, rowsOf } from './held-query.js';

/** Students and staff. The earlier version has no preferred names of its own. */
export async function usersOf(queries: Queries, version: ExchangeVersion): Promise<ExchangeRow[]> {
  const preferredName = version === '1.1' ? column('preferredName') : sql.identifier('preferredGivenName');
  const users = await rowsOf(
    queries,
    sql`
    SELECT p.sourced_id AS "sourcedId", 'true' AS "enabledUser",
           coalesce(sc.sourced_id, s.code, (SELECT string_agg(coalesce(i.sourced_id, a.code), ',' ORDER BY a.id) FROM schools a
             LEFT JOIN sourced_ids i ON i.kind = 'school' AND i.our_id = a.id)) AS "orgSourcedIds",
           CASE WHEN p.kind = 'student' THEN 'student'
                WHEN EXISTS (SELECT 1 FROM sections t WHERE t.teacher_id = p.id) THEN 'teacher' ELSE 'administrator' END AS role,
           coalesce(nullif(p.email, ''), p.sourced_id) AS username, p.given_name AS "givenName",
           p.family_name AS "familyName", p.preferred_name AS ${preferredName}, p.number AS identifier, p.email, p.year_group AS grades,
           p.entered_on::text AS ${column('enteredOn')}, p.left_on::text AS ${column('leftOn')}, p.pronoun AS ${column('pronoun')}
    FROM people p LEFT JOIN schools s ON s.id = p.school_id
    LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id
    WHERE p.sourced_id <> ${firstRegistrarId} ORDER BY p.id`,
  );
  return users.map((user) => ({ ...user, grades: gradesOf(user['grades']!) }));
}

/** Their days of birth. */
export function demographicsOf(queries: Queries): Promise<ExchangeRow[]> {
  return rowsOf(
    queries,
    sql`
    SELECT sourced_id AS "sourcedId", birth_date::text AS "birthDate" FROM people WHERE birth_date IS NOT NULL ORDER BY id`,
  );
}

/** Who sits in which section. */
export function enrollmentsOf(queries: Queries): Promise<ExchangeRow[]> {
  return rowsOf(
    queries,
    sql`
    SELECT ${idOf('enrollment')} AS "sourcedId", coalesce(n.sourced_id, 'section-' || e.section_id) AS "classSourcedId",
           coalesce(sc.sourced_id, s.code) AS "schoolSourcedId", p.sourced_id AS "userSourcedId", 'student' AS role,
           e.entered_on::text AS "beginDate", e.withdrawn_on::text AS "endDate"
    FROM enrollments e ${joinId('enrollment', sql`e.id`)} JOIN people p ON p.id = e.student_id
    JOIN sections t ON t.id = e.section_id JOIN courses c ON c.id = t.course_id JOIN schools s ON s.id = c.school_id
    LEFT JOIN sourced_ids n ON n.kind = 'section' AND n.our_id = e.section_id
    LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id ORDER BY e.id`,
  );
}

/** Who teaches which section, and who teaches it too. */
export function teachingOf(queries: Queries): Promise<ExchangeRow[]> {
  return rowsOf(
    queries,
    sql`
    SELECT CASE WHEN k."isTeacher" THEN 'teacher-' ELSE 'co-teacher-' || p.sourced_id || '-' END
             || coalesce(n.sourced_id, 'section-' || t.id) AS "sourcedId",
           coalesce(n.sourced_id, 'section-' || t.id) AS "classSourcedId", coalesce(sc.sourced_id, s.code) AS "schoolSourcedId",
           p.sourced_id AS "userSourcedId", 'teacher' AS role, k."isTeacher"::text AS "primary"
    FROM (SELECT id AS section_id, teacher_id AS person_id, true AS "isTeacher" FROM sections
          UNION ALL SELECT section_id, person_id, false FROM section_co_teachers) AS k
    JOIN sections t ON t.id = k.section_id JOIN people p ON p.id = k.person_id
    JOIN courses c ON c.id = t.course_id JOIN schools s ON s.id = c.school_id
    LEFT JOIN sourced_ids n ON n.kind = 'section' AND n.our_id = t.id
    LEFT JOIN sourced_ids sc ON sc.kind = 'school' AND sc.our_id = s.id ORDER BY t.id, k."isTeacher" DESC, p.id`,
  );
}
