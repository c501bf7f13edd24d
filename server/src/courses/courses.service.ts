import { Injectable } from '@nestjs/common';
import {
  cellsOfCourse,
  courseOfCells,
  courseTable,
  factSource,
  inheritableFacts,
  withInheritedFacts,
  type CourseDefaults,
  type InheritableFact,
  type OwnCourse,
} from '#core/courses';
import type { SavedRows } from '#contract/cell-tables';
import {
  bodiesOfDefaults,
  defaultsOfBody,
  type CourseImportReply,
  type CourseReply,
  type CoursesReply,
  type SaveCourseDefaultsRequest,
  type SaveCoursesRequest,
} from '#contract/courses';
import type { ItemRulesBody } from '#contract/report-items';
import { othersOf, planOrRefuse, savedRows, saveRows, type UploadedRows } from '#server/cell-tables';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { Transactions, type Actor, type Queries } from '#server/platform';
import { PlacementsRepository, placeOfCourse, scalePlaceId, scaleSource, seekerOf } from '#server/placements';
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
    request: SaveCoursesRequest,
  ): Promise<CoursesReply & SavedRows> {
    return this.transactions.run(async (queries) => {
      const own = await this.courses.ownOf(queries, schoolId);
      const ids = await saveRows(
        queries,
        { changes: this.changes, actor },
        {
          table: courseTable,
          kind: 'course',
          numberedBy: 'courses',
          faulty: 'courses-faulty',
          own,
          taken: othersOf(own, request).map(({ code }) => code),
          sharing: 'a code that no other course of the school has',
          nameOf: (id) => own.find((course) => course.id === id)?.title ?? '',
          titleOf: ({ title }) => title,
          valueOf: (cells) => valueOfCourse({ ...courseOfCells(cells), schoolId, id: 0 }),
          before: await this.hangingOn(queries, schoolId, request.removed),
        },
        request,
      );
      const reply = await this.read(queries, schoolId, periodId);
      return { ...reply, ...savedRows(ids, reply.courses) };
    });
  }

  /** What speaks of nothing but courses that go: their exceptions and their scales. */
  private async hangingOn(queries: Queries, schoolId: number, removed: readonly number[]): Promise<Edit[]> {
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

  async planImport(schoolId: number, file: UploadedRows): Promise<CourseImportReply> {
    const own = await this.courses.ownOf(this.transactions.reading, schoolId);
    const existing = own.map((course) => ({ id: course.id, cells: cellsOfCourse(course) }));
    return planOrRefuse(courseTable, file, existing, 'column-code-missing');
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

function courseReply(
  course: OwnCourse,
  defaults: readonly CourseDefaults[],
  use: CourseUse | undefined,
): Omit<CourseReply, 'scale'> {
  // What would hold if the course said nothing of itself.
  const bare = {
    ...course,
    credits: null,
    mostCredits: null,
    onTranscript: null,
    countsInGpa: null,
    allowsExempt: null,
  };
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
