import { Injectable } from '@nestjs/common';
import type { CopySetUpReply, CopySetUpRequest, CopiedPart } from '#contract/courses';
import type { Exception } from '#core/report-items';
import { placementsInForce } from '#core/scales';
import { PeriodsRepository } from '#server/calendar';
import { CoursesRepository, valueOfCourse } from '#server/courses';
import { PlacementsRepository, placeOfCourse, ScalePlacing } from '#server/placements';
import type { OwnCourse } from '#core/courses';
import { bodyOfAssignment } from '#contract/report-items';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ReportItemsRepository } from '#server/report-items';
import { counted } from '#contract/messages';

/** What copying would do to one course. */
interface CoursePlan {
  readonly course: OwnCourse;
  readonly exceptions: readonly Exception[];
  readonly scale: { readonly scaleId: number | null; readonly isLocked: boolean } | undefined;
  readonly facts:
    | Pick<OwnCourse, 'credits' | 'mostCredits' | 'onTranscript' | 'countsInGpa' | 'allowsExempt'>
    | undefined;
  readonly changes: readonly string[];
}

/** Copies what one course has set up onto others: its exceptions, its scale, its facts for transcript and GPA. */
@Injectable()
export class CopySetUpService {
  constructor(
    private readonly transactions: Transactions,
    private readonly courses: CoursesRepository,
    private readonly items: ReportItemsRepository,
    private readonly placements: PlacementsRepository,
    private readonly periods: PeriodsRepository,
    private readonly placing: ScalePlacing,
    private readonly changes: Changes,
  ) {}

  /** What would change, and what to know first. Nothing is written. */
  async preview(courseId: number, request: CopySetUpRequest): Promise<CopySetUpReply> {
    return this.transactions.snapshot(async (queries) => {
      const { source, plans } = await this.plan(queries, courseId, request);
      const uses = await this.courses.usesOf(
        queries,
        plans.map(({ course }) => course.id),
      );
      return {
        courses: plans.map(({ course, changes }) => {
          const grades = uses.get(course.id)?.grades ?? 0;
          const warnings = [
            ...(grades > 0 ? [`${grades} grades are posted in it`] : []),
            ...(course.length === source.length
              ? []
              : [`it runs for a ${course.length}, ${source.title} for a ${source.length}`]),
          ];
          return { id: course.id, title: course.title, changes, warnings };
        }),
      };
    });
  }

  async copy(actor: Actor, courseId: number, request: CopySetUpRequest): Promise<CopySetUpReply> {
    const reply = await this.preview(courseId, request);
    await this.transactions.run(async (queries) => {
      const { source, plans, period } = await this.plan(queries, courseId, request);
      if (request.parts.includes('scale')) await this.periods.refuseSealedFrom(queries, period, source.schoolId);
      const changed = plans.filter(({ changes }) => changes.length > 0);
      const edits: Edit[] = request.parts.includes('items')
        ? [await this.exceptionsEdit(queries, source, changed)]
        : [];
      for (const { course, scale, facts } of changed) {
        if (scale !== undefined) {
          const place = placeOfCourse(course.schoolId, course.id);
          edits.push(await this.placing.editOf(queries, place, { ...scale, fromPeriodId: period.id }));
        }
        if (facts) {
          const [before, after] = [valueOfCourse(course), valueOfCourse({ ...course, ...facts })];
          edits.push({ kind: 'course', id: String(course.id), expected: revisionOf(before), after });
        }
      }
      const onto = changed.length === 1 ? changed[0]!.course.title : counted(changed.length, 'course');
      await this.changes.make(queries, actor, { action: `copy the set-up of ${source.title} onto ${onto}`, edits });
    });
    return reply;
  }

  private async exceptionsEdit(queries: Queries, { schoolId }: OwnCourse, plans: readonly CoursePlan[]): Promise<Edit> {
    const before = bodyOfAssignment(await this.items.assignmentOf(queries, schoolId));
    const ids = new Set(plans.map(({ course }) => course.id));
    const exceptions = [
      ...before.exceptions.filter(({ courseId }) => !ids.has(courseId)),
      ...plans.flatMap((plan) => plan.exceptions.map(({ id: _id, ...exception }) => exception)),
    ].toSorted((a, b) => a.itemId - b.itemId || a.courseId - b.courseId);
    return {
      kind: 'report-rules',
      id: String(schoolId),
      expected: revisionOf(before),
      after: { ...before, exceptions },
    };
  }

  private async plan(queries: Queries, courseId: number, { toIds, parts, fromPeriodId }: CopySetUpRequest) {
    const period = await this.periods.byIdOrThrow(queries, fromPeriodId);
    const schoolId = await this.courses.schoolOfOrThrow(queries, courseId);
    const own = await this.courses.ownOf(queries, schoolId);
    const source = own.find(({ id }) => id === courseId)!;
    const unknown = toIds.find((id) => !own.some((course) => course.id === id));
    if (unknown !== undefined) throw new Refusal('not-found', { what: 'course of this school', id: unknown });
    const exceptions = await this.items.exceptionsOfSchool(queries, schoolId);
    const items = new Map((await this.items.ofSchool(queries, schoolId)).map(({ id, name }) => [id, name]));
    const placements = placementsInForce(await this.placements.ofSchool(queries, schoolId), period);
    const names = await this.placements.scaleNames(queries);
    const scaleOf = (id: number) => placements.find((each) => each.kind === 'course' && each.courseId === id);
    const targets = own.filter(({ id }) => toIds.includes(id) && id !== courseId);
    const has = (part: CopiedPart) => parts.includes(part);
    const plans = targets.map((course): CoursePlan => {
      const before = exceptions.filter((each) => each.courseId === course.id);
      const copied = exceptions
        .filter((each) => each.courseId === courseId)
        .map((each) => ({ ...each, courseId: course.id }));
      const [from, to] = [scaleOf(courseId), scaleOf(course.id)];
      const { credits, mostCredits, onTranscript, countsInGpa, allowsExempt } = source;
      const changes = [
        ...(has('items') ? exceptionChanges(before, copied, items) : []),
        ...(has('scale') && from?.scaleId !== to?.scaleId
          ? [
              from
                ? `${names.get(from.scaleId)!} is used from ${period.name} on`
                : `its scale is inherited from ${period.name} on`,
            ]
          : []),
        ...(has('facts') && !hasSameFacts(source, course) ? ['credits, transcript and GPA become the same'] : []),
      ];
      return {
        course,
        exceptions: has('items') ? copied : before,
        scale:
          has('scale') && from?.scaleId !== to?.scaleId
            ? { scaleId: from?.scaleId ?? null, isLocked: from?.isLocked ?? false }
            : undefined,
        facts: has('facts') ? { credits, mostCredits, onTranscript, countsInGpa, allowsExempt } : undefined,
        changes,
      };
    });
    return { source, plans, period };
  }
}

function exceptionChanges(
  own: readonly Exception[],
  copied: readonly Exception[],
  items: ReadonlyMap<number, string>,
): string[] {
  return [...items].flatMap(([itemId, name]) => {
    const [before, after] = [own, copied].map((list) => list.find((each) => each.itemId === itemId)?.effect);
    if (before === after) return [];
    return [
      after === undefined
        ? `${name} follows the rules again`
        : `${name} is ${after === 'reports' ? 'reported' : 'omitted'}`,
    ];
  });
}

function hasSameFacts(a: OwnCourse, b: OwnCourse): boolean {
  const shown = ({ credits, mostCredits, onTranscript, countsInGpa, allowsExempt }: OwnCourse) =>
    [credits, mostCredits].map((value) => value && `${value.units}e-${value.digits}`).join() +
    String([onTranscript, countsInGpa, allowsExempt]);
  return shown(a) === shown(b);
}
