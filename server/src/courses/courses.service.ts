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
import {
  actionOfRows,
  planOrRefuse,
  refuseUnknownRows,
  rowFaults,
  savedRows,
  idsOfChanges,
  type UploadedRows,
} from '#server/cell-tables';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
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
    { changes, removed }: SaveCoursesRequest,
  ): Promise<CoursesReply & SavedRows> {
    return this.transactions.run(async (queries) => {
      const own = await this.courses.ownOf(queries, schoolId);
      refuseUnknownRows('course', own, changes, removed);
      const changed = new Set([...removed, ...changes.flatMap(({ id }) => id ?? [])]);
      const others = own.filter(({ id }) => !changed.has(id)).map(({ code }) => code);
      const faults = rowFaults(courseTable, changes, others, 'a code that no other course of the school has');
      if (faults.length > 0) throw new Refusal('courses-faulty', { count: faults.length }, faults);
      const given = await nextIds(queries, 'courses', changes.filter(({ id }) => id === null).length);
      const ids = idsOfChanges(changes, given);
      const edits = changes.map(({ id, revision, cells }, at): Edit => {
        const after = valueOfCourse({ ...courseOfCells(cells), schoolId, id: 0 });
        return id === null
          ? { kind: 'course', id: String(ids[at]), after }
          : { kind: 'course', id: String(id), expected: revision, after };
      });
      await this.changes.make(queries, actor, {
        action: actionOfRows(
          'course',
          { changes, removed },
          (id) => own.find((course) => course.id === id)?.title ?? '',
          ({ cells }) => cells.title,
        ),
        edits: [...(await this.withoutCourses(queries, schoolId, removed)), ...edits],
      });
      const reply = await this.read(queries, schoolId, periodId);
      return { ...reply, ...savedRows(ids, reply.courses) };
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
