import { Injectable } from '@nestjs/common';
import {
  cellFault,
  cellsOfCourse,
  courseFields,
  courseOfCells,
  factSource,
  inheritableFacts,
  planCourseImport,
  withInheritedFacts,
  type CourseDefaults,
  type InheritableFact,
  type OwnCourse,
} from '#core/courses';
import {
  bodiesOfDefaults,
  cellFaultSentences,
  defaultsOfBody,
  type CourseChangeBody,
  type CourseImportReply,
  type CourseReply,
  type CoursesReply,
  type SaveCourseDefaultsRequest,
  type SaveCoursesRequest,
} from '#contract/courses';
import type { ItemRulesBody } from '#contract/report-items';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { PlacementsRepository, placeOfCourse, scalePlaceId, scaleSource, seekerOf } from '#server/placements';
import { counted, listed } from '#contract/messages';
import { valueOfCourse } from './course.thing.js';
import { CoursesRepository, type CourseUse } from './courses.repository.js';

@Injectable()
export class CoursesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly courses: CoursesRepository,
    private readonly placements: PlacementsRepository,
    private readonly changes: Changes,
  ) {}

  /** With the scale that each uses in a period. */
  ofSchool(schoolId: number, periodId: number): Promise<CoursesReply> {
    return this.transactions.snapshot((queries) => this.read(queries, schoolId, periodId));
  }

  /** The cells of the courses, as a file has them. */
  async cellsOf(schoolId: number) {
    return (await this.courses.ownOf(this.transactions.reading, schoolId)).map(cellsOfCourse);
  }

  /** Changes, adds and removes courses, with the exceptions and scales of those that go: all of it, or nothing. */
  async save(
    actor: Actor,
    schoolId: number,
    periodId: number,
    { changes, removed }: SaveCoursesRequest,
  ): Promise<CoursesReply> {
    return this.transactions.run(async (queries) => {
      const own = await this.courses.ownOf(queries, schoolId);
      refuseFaults(own, changes, removed);
      const given = await nextIds(queries, 'courses', changes.filter(({ id }) => id === null).length);
      const edits = changes.map(({ id, revision, cells }): Edit => {
        const after = valueOfCourse({ ...courseOfCells(cells), schoolId, id: 0 });
        return id === null
          ? { kind: 'course', id: String(given.shift()!), after }
          : { kind: 'course', id: String(id), expected: revision, after };
      });
      await this.changes.make(queries, actor, {
        action: actionOf(own, changes, removed),
        edits: [...(await this.withoutCourses(queries, schoolId, removed)), ...edits],
      });
      return this.read(queries, schoolId, periodId);
    });
  }

  /** Courses go with what speaks of nothing else: their exceptions and their scales. */
  private async withoutCourses(queries: Queries, schoolId: number, removed: readonly number[]): Promise<Edit[]> {
    if (removed.length === 0) return [];
    const id = String(schoolId);
    const rules = (await this.changes.valueOf<ItemRulesBody>(queries, 'report-rules', id))!;
    const exceptions = rules.exceptions.filter(({ courseId }) => !removed.includes(courseId));
    return [
      { kind: 'report-rules', id, expected: revisionOf(rules), after: { ...rules, exceptions } },
      ...removed.map((courseId) => ({
        kind: 'scale-place',
        id: scalePlaceId(placeOfCourse(schoolId, courseId)),
        after: null,
      })),
      ...removed.map((courseId) => ({ kind: 'course', id: String(courseId), after: null })),
    ];
  }

  async saveDefaults(
    actor: Actor,
    schoolId: number,
    periodId: number,
    { revision, defaults }: SaveCourseDefaultsRequest,
  ): Promise<CoursesReply> {
    return this.transactions.run(async (queries) => {
      const after = bodiesOfDefaults(defaults.map(defaultsOfBody));
      await this.changes.make(queries, actor, {
        action: 'save the course defaults',
        edits: [{ kind: 'course-defaults', id: String(schoolId), expected: revision, after }],
      });
      return this.read(queries, schoolId, periodId);
    });
  }

  /** What taking in a table of courses would change. Nothing is written; the changes are saved like typed ones. */
  async planImport(
    schoolId: number,
    fileName: string,
    table: readonly (readonly string[])[],
  ): Promise<CourseImportReply> {
    const own = await this.courses.ownOf(this.transactions.reading, schoolId);
    const plan = planCourseImport(
      table,
      own.map((course) => ({ id: course.id, cells: cellsOfCourse(course) })),
    );
    if (!plan) throw new Refusal('column-code-missing', { name: fileName });
    return { fileName, headerRow: plan.headerRow, fields: Object.keys(plan.columns), rows: plan.rows };
  }

  private async read(queries: Queries, schoolId: number, periodId: number): Promise<CoursesReply> {
    const own = await this.courses.ownOf(queries, schoolId);
    const defaults = await this.courses.defaultsOf(queries, schoolId);
    const uses = await this.courses.usesOf(
      queries,
      own.map(({ id }) => id),
    );
    const placements = await this.placements.inPeriod(queries, schoolId, periodId);
    const names = await this.placements.scaleNames(queries);
    const bodies = bodiesOfDefaults(defaults);
    return {
      courses: own.map((course) => ({
        ...courseReply(course, defaults, uses.get(course.id)),
        scale: scaleSource(placements, names, seekerOf(course)),
      })),
      defaults: bodies,
      defaultsRevision: revisionOf(bodies),
    };
  }
}

function refuseFaults(
  own: readonly OwnCourse[],
  changes: readonly CourseChangeBody[],
  removed: readonly number[],
): void {
  const faults: FieldFault[] = [];
  const unknown = removed.find((id) => !own.some((course) => course.id === id));
  if (unknown !== undefined) throw new Refusal('not-found', { what: 'course', id: unknown });
  const changed = new Set([...removed, ...changes.flatMap(({ id }) => id ?? [])]);
  const codes = new Set(own.filter(({ id }) => !changed.has(id)).map(({ code }) => code.toLowerCase()));
  changes.forEach(({ id, cells }, index) => {
    if (id !== null && !own.some((course) => course.id === id)) throw new Refusal('not-found', { what: 'course', id });
    for (const field of courseFields) {
      const fault = cellFault(field, cells[field]);
      if (fault) faults.push({ field: `changes.${index}.cells.${field}`, detail: cellFaultSentences[fault] });
    }
    const code = cells.code.trim().toLowerCase();
    if (code !== '' && codes.has(code)) {
      faults.push({ field: `changes.${index}.cells.code`, detail: 'a code that no other course of the school has' });
    }
    codes.add(code);
  });
  if (faults.length > 0) throw new Refusal('courses-faulty', { count: faults.length }, faults);
}

function courseReply(
  course: OwnCourse,
  defaults: readonly CourseDefaults[],
  use: CourseUse | undefined,
): Omit<CourseReply, 'scale'> {
  // What would hold if the course said nothing of itself.
  const bare = { ...course, credits: null, mostCredits: null, onTranscript: null, countsInGpa: null };
  const texts = cellsOfCourse(withInheritedFacts(bare, defaults));
  return {
    id: course.id,
    revision: revisionOf(valueOfCourse(course)),
    cells: cellsOfCourse(course),
    inherited: Object.fromEntries(
      inheritableFacts.map((fact: InheritableFact) => [
        fact,
        { text: texts[fact], from: factSource(bare, defaults, fact) },
      ]),
    ) as CourseReply['inherited'],
    sections: use?.sections ?? 0,
    grades: use?.grades ?? 0,
  };
}

/** What a save does, in words: "change Knots", "add 3 courses and delete 1 course". */
function actionOf(own: readonly OwnCourse[], changes: readonly CourseChangeBody[], removed: readonly number[]): string {
  const named = (ids: readonly (number | null)[], titles: readonly string[]) =>
    ids.length === 1 ? titles[0]! : counted(ids.length, 'course');
  const [added, changed] = [changes.filter(({ id }) => id === null), changes.filter(({ id }) => id !== null)];
  const titles = (ids: readonly (number | null)[]) => ids.map((id) => own.find((each) => each.id === id)?.title ?? '');
  const parts = [
    ['add', added.map(({ id }) => id), added.map(({ cells }) => cells.title)],
    ['change', changed.map(({ id }) => id), titles(changed.map(({ id }) => id))],
    ['delete', removed, titles(removed)],
  ] as const;
  const said = parts.flatMap(([does, ids, names]) => (ids.length > 0 ? [`${does} ${named(ids, names)}`] : []));
  return listed(said) || 'save courses';
}
