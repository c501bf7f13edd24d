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
} from '#core/courses';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import {
  cellFaultSentences,
  type CourseChangeBody,
  type CourseDefaultsBody,
  type CourseImportReply,
  type CourseReply,
  type CoursesReply,
  type SaveCourseDefaultsRequest,
  type SaveCoursesRequest,
} from '#contract/courses';
import { ChangeLog, type Change } from '#server/changes';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { CoursesRepository, type CourseUse, type KeptCourse } from './courses.repository.js';
import { PlacementsRepository } from './placements.repository.js';
import { scaleSource, seekerOf } from './scale-source.js';

@Injectable()
export class CoursesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly courses: CoursesRepository,
    private readonly placements: PlacementsRepository,
    private readonly log: ChangeLog,
  ) {}

  /** With the scale that each uses in a period. */
  ofSchool(schoolId: number, periodId: number): Promise<CoursesReply> {
    return this.read(this.transactions.reading, schoolId, periodId);
  }

  /** The cells of the courses, as a file has them. */
  async cellsOf(schoolId: number) {
    return (await this.courses.keptOf(this.transactions.reading, schoolId)).map(cellsOfCourse);
  }

  /** Changes, adds and takes out courses: all of it, or nothing. */
  async save(
    actor: Actor,
    schoolId: number,
    periodId: number,
    { changes, removed }: SaveCoursesRequest,
  ): Promise<CoursesReply> {
    return this.transactions.run(async (queries) => {
      const kept = await this.courses.keptOf(queries, schoolId);
      refuseFaults(kept, changes, removed);
      await this.refuseUsed(queries, schoolId, kept, removed);
      const logged: Change[] = [];
      for (const id of removed) {
        const course = kept.find((each) => each.id === id)!;
        logged.push({ action: 'remove course', thing: `course ${id}`, before: cellsOfCourse(course), after: null });
      }
      await this.courses.remove(queries, removed);
      for (const { id, version, cells } of changes) {
        const facts = courseOfCells(cells);
        const before = kept.find((course) => course.id === id);
        if (id === null) {
          const added = await this.courses.add(queries, schoolId, facts);
          logged.push({ action: 'add course', thing: `course ${added}`, before: null, after: cells });
        } else {
          if (!(await this.courses.change(queries, id, version, facts))) {
            throw new Refusal('set-up-changed', { what: `facts of ${before!.title}` });
          }
          logged.push({ action: 'change course', thing: `course ${id}`, before: cellsOfCourse(before!), after: cells });
        }
      }
      await this.log.record(queries, actor, logged);
      return this.read(queries, schoolId, periodId);
    });
  }

  async saveDefaults(
    actor: Actor,
    schoolId: number,
    periodId: number,
    request: SaveCourseDefaultsRequest,
  ): Promise<CoursesReply> {
    return this.transactions.run(async (queries) => {
      const before = (await this.courses.defaultsOf(queries, schoolId)).map(bodyOfDefaults);
      const twice = request.defaults.findIndex(
        ({ department }, index) => request.defaults.findIndex((each) => each.department === department) < index,
      );
      if (twice !== -1) {
        throw new Refusal('fields-wrong', {}, [
          { field: `defaults.${twice}.department`, detail: 'each department once' },
        ]);
      }
      await this.courses.replaceDefaults(queries, schoolId, request.defaults.map(defaultsOfBody));
      await this.log.record(queries, actor, [
        { action: 'save course defaults', thing: `school ${schoolId}`, before, after: request.defaults },
      ]);
      return this.read(queries, schoolId, periodId);
    });
  }

  /** What taking in a table of courses would change. Nothing is written; the changes are saved like typed ones. */
  async planImport(
    schoolId: number,
    fileName: string,
    table: readonly (readonly string[])[],
  ): Promise<CourseImportReply> {
    const kept = await this.courses.keptOf(this.transactions.reading, schoolId);
    const plan = planCourseImport(
      table,
      kept.map((course) => ({ id: course.id, cells: cellsOfCourse(course) })),
    );
    if (!plan) throw new Refusal('column-code-missing', { name: fileName });
    return { fileName, headerRow: plan.headerRow, fields: Object.keys(plan.columns), rows: plan.rows };
  }

  private async read(queries: Queries, schoolId: number, periodId: number): Promise<CoursesReply> {
    const kept = await this.courses.keptOf(queries, schoolId);
    const defaults = await this.courses.defaultsOf(queries, schoolId);
    const uses = await this.courses.usesOf(queries, schoolId);
    const placements = await this.placements.inPeriod(queries, schoolId, periodId);
    const names = await this.placements.scaleNames(queries);
    return {
      courses: kept.map((course) => ({
        ...courseReply(course, defaults, uses.get(course.id)),
        scale: scaleSource(placements, names, seekerOf(course)),
      })),
      defaults: defaults.map(bodyOfDefaults),
    };
  }

  private async refuseUsed(
    queries: Queries,
    schoolId: number,
    kept: readonly KeptCourse[],
    removed: readonly number[],
  ): Promise<void> {
    if (removed.length === 0) return;
    const uses = await this.courses.usesOf(queries, schoolId);
    const used = kept.find(({ id }) => removed.includes(id) && uses.has(id));
    if (!used) return;
    const { sections, grades } = uses.get(used.id)!;
    throw new Refusal('in-use', {
      what: 'The course',
      name: used.title,
      uses: `${sections} sections and ${grades} posted grades`,
      instead: 'Take it off the transcript or let it report nothing instead.',
    });
  }
}

function refuseFaults(
  kept: readonly KeptCourse[],
  changes: readonly CourseChangeBody[],
  removed: readonly number[],
): void {
  const faults: FieldFault[] = [];
  const unknown = removed.find((id) => !kept.some((course) => course.id === id));
  if (unknown !== undefined) throw new Refusal('not-found', { what: 'course', id: unknown });
  const changed = new Set([...removed, ...changes.flatMap(({ id }) => id ?? [])]);
  const codes = new Set(kept.filter(({ id }) => !changed.has(id)).map(({ code }) => code.toLowerCase()));
  changes.forEach(({ id, cells }, index) => {
    if (id !== null && !kept.some((course) => course.id === id)) throw new Refusal('not-found', { what: 'course', id });
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
  course: KeptCourse,
  defaults: readonly CourseDefaults[],
  use: CourseUse | undefined,
): Omit<CourseReply, 'scale'> {
  // What would hold if the course said nothing of itself.
  const bare = { ...course, credits: null, mostCredits: null, onTranscript: null, countsInGpa: null };
  const texts = cellsOfCourse(withInheritedFacts(bare, defaults));
  return {
    id: course.id,
    version: course.version,
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

function bodyOfDefaults({ credits, mostCredits, ...defaults }: CourseDefaults): CourseDefaultsBody {
  return {
    ...defaults,
    credits: credits && formatDecimal(credits),
    mostCredits: mostCredits && formatDecimal(mostCredits),
  };
}

function defaultsOfBody({ credits, mostCredits, ...body }: CourseDefaultsBody): CourseDefaults {
  return {
    ...body,
    credits: credits === null ? null : decimalOrThrow(credits),
    mostCredits: mostCredits === null ? null : decimalOrThrow(mostCredits),
  };
}
