import { cellsOfCourse, courseOfCells, type CourseCells } from '#core/courses';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type PlaceOf, type Queries } from '#server/platform';
import { usesInWords } from '#contract/messages';
import { CoursesRepository } from './courses.repository.js';

/** A course as the log tells of it: whose it is, and its cells. */
export interface CourseValue {
  readonly schoolId: number;
  readonly cells: CourseCells;
}

export function valueOfCourse(
  course: Parameters<typeof cellsOfCourse>[0] & { readonly schoolId: number },
): CourseValue {
  return { schoolId: course.schoolId, cells: cellsOfCourse(course) };
}

/** Courses, by their numbers. One that sections hang on is not removed. */
@ThingOf({ kind: 'course', called: 'the course', change: 'change-set-up', see: 'read-set-up' })
export class CourseThing implements Thing<CourseValue> {
  constructor(private readonly courses: CoursesRepository) {}

  within({ schoolId }: CourseValue): [PlaceOf] {
    return [{ kind: 'school', id: schoolId }];
  }

  title({ cells }: CourseValue): string {
    return cells.title;
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, CourseValue>> {
    const found = await this.courses.byIds(queries, ids.map(Number));
    return new Map(found.map((course) => [String(course.id), valueOfCourse(course)]));
  }

  async check(queries: Queries, values: ReadonlyMap<string, CourseValue | null>): Promise<void> {
    const removed = [...values].flatMap(([id, value]) => (value ? [] : [Number(id)]));
    const uses = await this.courses.usesOf(queries, removed);
    for (const [id, { title, sections, grades }] of uses) {
      if (!removed.includes(id)) continue;
      const instead = 'Remove it from the transcript or set it to report nothing instead.';
      throw new Refusal('in-use', {
        what: 'The course',
        name: title,
        uses: usesInWords({ counts: { section: sections, 'posted grade': grades } }),
        instead,
      });
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, CourseValue | null>): Promise<void> {
    await this.courses.remove(
      queries,
      [...values].flatMap(([id, value]) => (value ? [] : [Number(id)])),
    );
    await this.courses.put(
      queries,
      [...values].flatMap(([id, value]) =>
        value ? [{ ...courseOfCells(value.cells), id: Number(id), schoolId: value.schoolId }] : [],
      ),
    );
  }
}
