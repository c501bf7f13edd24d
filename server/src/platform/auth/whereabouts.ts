import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import { mayAt, ofSchool, type Action, type Holder, type Whereabouts as Where } from '#core/access';
import { coTeachersOf } from '../database/co-teachers-of.js';
import { intArray } from '../database/int-array.js';
import type { Queries } from '../database/open-database.js';
import { Transactions } from '../database/transactions.js';

const nobody = sql`'{}'::int[]`;
const ofSchools = (table: string) => sql`SELECT id, school_id, ${nobody} AS teachers FROM ${sql.raw(table)}`;

/** For each kind of thing, all of them with their school and who teaches them. */
const wheres = {
  school: sql`SELECT id, id AS school_id, ${nobody} AS teachers FROM schools`,
  period: ofSchools('periods'),
  scale: ofSchools('scales'),
  'report-item': ofSchools('report_items'),
  course: ofSchools('courses'),
  section: sql`SELECT s.id, c.school_id, s.teacher_id || ${coTeachersOf('s')} AS teachers FROM sections s JOIN courses c ON c.id = s.course_id`,
  enrollment: sql`SELECT e.id, c.school_id, s.teacher_id || ${coTeachersOf('s')} AS teachers
    FROM enrollments e JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id`,
  'posting-request': sql`SELECT q.id, c.school_id, s.teacher_id || ${coTeachersOf('s')} AS teachers
    FROM posting_requests q JOIN sections s ON s.id = q.section_id JOIN courses c ON c.id = s.course_id`,
  person: ofSchools('people'),
  platform: ofSchools('learning_platforms'),
  run: sql`SELECT r.id, p.school_id, ${nobody} AS teachers FROM runs r JOIN learning_platforms p ON p.id = r.platform_id`,
  'file-import': ofSchools('file_imports'),
  mail: ofSchools('mails'),
} as const satisfies Readonly<Record<string, SQL>>;

/** A kind of thing that stands somewhere by itself. */
export type PlaceKind = keyof typeof wheres;

/** A thing that stands somewhere, by its kind and number. */
export interface PlaceOf {
  readonly kind: PlaceKind;
  readonly id: number;
}

/** Where things stand, and so who may read and change them. */
@Injectable()
export class Whereabouts {
  constructor(private readonly transactions: Transactions) {}

  /** Whether somebody may do this to all of these, each of which there is; null stands for what all schools share. */
  async may(
    holder: Holder,
    action: Action,
    places: readonly (PlaceOf | null)[],
    queries: Queries = this.transactions.reading,
  ): Promise<boolean> {
    if (places.includes(null) && !mayAt(holder, action, ofSchool(null))) return false;
    const found = await this.of(places, queries);
    return found.every((where) => where !== undefined && mayAt(holder, action, where));
  }

  /** Where each of these stands, in their order; undefined for one that there is not. */
  async of(
    places: readonly (PlaceOf | null)[],
    queries: Queries = this.transactions.reading,
  ): Promise<(Where | undefined)[]> {
    const found = new Map<string, Where>();
    for (const kind of new Set(places.flatMap((place) => place?.kind ?? []))) {
      const ids = [...new Set(places.flatMap((place) => (place?.kind === kind ? [place.id] : [])))];
      const { rows } = await queries.execute<{ id: number; school_id: number | null; teachers: number[] }>(sql`
        SELECT id, school_id, teachers FROM (${wheres[kind]}) placed WHERE id = ANY(${intArray(ids)})`);
      for (const { id, school_id, teachers } of rows)
        found.set(`${kind} ${id}`, { schoolId: school_id, teacherIds: teachers });
    }
    return places.map((place) => (place ? found.get(`${place.kind} ${place.id}`) : ofSchool(null)));
  }
}
