import { bodiesOfDefaults, defaultsOfBody, type CourseDefaultsBody } from '#contract/courses';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type Queries } from '#server/platform';
import { CoursesRepository } from './courses.repository.js';

/** What holds where the courses of a school say nothing, by the school's number: one list, the school itself before departments. */
@ThingOf({
  kind: 'course-defaults',
  called: 'the course defaults',
  change: 'change-set-up',
  see: 'read-set-up',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class CourseDefaultsThing implements Thing<readonly CourseDefaultsBody[]> {
  constructor(private readonly courses: CoursesRepository) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, readonly CourseDefaultsBody[]>> {
    const found = new Map<string, readonly CourseDefaultsBody[]>();
    for (const id of ids) found.set(id, bodiesOfDefaults(await this.courses.defaultsOf(queries, Number(id))));
    return found;
  }

  async check(_queries: Queries, values: ReadonlyMap<string, readonly CourseDefaultsBody[] | null>): Promise<void> {
    for (const list of values.values()) {
      const departments = (list ?? []).map(({ department }) => department);
      const twice = departments.findIndex((department, at) => departments.indexOf(department) < at);
      if (twice === -1) continue;
      throw new Refusal('fields-wrong', {}, [
        { field: `defaults.${twice}.department`, detail: 'each department once' },
      ]);
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, readonly CourseDefaultsBody[] | null>): Promise<void> {
    for (const [id, list] of values)
      await this.courses.replaceDefaults(queries, Number(id), (list ?? []).map(defaultsOfBody));
  }
}
