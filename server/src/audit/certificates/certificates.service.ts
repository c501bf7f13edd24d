import { Injectable } from '@nestjs/common';
import { auditRules, findingKey, inForceFor, ruleById, whatBroke, type Finding, type RuleInForce } from '#core/audit';
import type { Course } from '#core/courses';
import {
  findingSentence,
  type CertificateReply,
  type CertifyRequest,
  type CourseCertificatesReply,
} from '#contract/audit';
import { RuleSettingsRepository } from '#server/audit-rules';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { CoursesRepository } from '#server/courses';
import { PeriodViews, type RunningSection } from '#server/period-view';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { inForceIn, subjectOf, AuditRunsRepository, type AuditRun } from '../runs/audit-runs.repository.js';
import { SnapshotService } from '../snapshots/snapshot.service.js';
import { FindingNoticesRepository } from '../settling/finding-notices.repository.js';
import { AuditStandingsService, doneOrThrow, type AuditStanding } from './audit-standings.service.js';
import { CertificatesRepository, type Certificate } from './certificates.repository.js';

export interface SealCertificates {
  /** The last one of all of the period; null for none. */
  readonly last: CertificateReply | null;
  /** Those that a seal rests on; none where nothing holds for all of the period. */
  readonly holding: readonly CertificateReply[];
}

/** Closes the audit of a period, or of some of its courses: what was checked, by which rules, what was let stand and why. */
@Injectable()
export class CertificatesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly snapshots: SnapshotService,
    private readonly runs: AuditRunsRepository,
    private readonly standings: AuditStandingsService,
    private readonly certificates: CertificatesRepository,
    private readonly settings: RuleSettingsRepository,
    private readonly courses: CoursesRepository,
    private readonly notices: FindingNoticesRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /**
   * @throws Refusal audit-needed, audit-incomplete, audit-outdated, findings-block or courses-block while the audit is not done;
   * period-sealed; fields-wrong where a course reports nothing in the period
   */
  async issue(actor: Actor, { periodId, courseIds: chosen = [], note }: CertifyRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      await this.periods.holdUnsealedOrThrow(queries, period);
      const courseIds = chosen.toSorted((a, b) => a - b);
      const sections = await this.sectionsOrThrow(queries, period, courseIds);
      // Before the grades are asked whether they changed: one that is saved in between is refused or breaks the certificate.
      const gradesHash = await this.certificates.gradesHash(queries, periodId, courseIds);
      const standing = (await this.standings.byCourses(queries, periodId))(courseIds);
      const run = doneOrThrow(period, standing);
      const grades = sections ? await this.gradesIn(queries, period, sections) : run.gradesChecked;
      const certificate = {
        schoolId: period.schoolId,
        periodId,
        courseIds,
        runId: run.id,
        issuedBy: actor.personId,
        issuedAt: this.clock.now(),
        note: note.trim(),
        gradesHash,
        facts: { ...(await this.factsOf(queries, run, standing)), grades },
      };
      const id = await this.certificates.add(queries, certificate);
      const { facts } = certificate;
      const after = {
        period: period.name,
        courses: facts.courses,
        audit: run.id,
        grades,
        waivers: facts.waivers.length,
        gradesHash,
      };
      await this.log.record(queries, actor, [
        { action: 'issue certificate', thing: `certificate ${id}`, before: null, after },
      ]);
    });
  }

  /** The last certificate of all of a period, and whether it still holds. */
  async replyOf(queries: Queries, periodId: number): Promise<CertificateReply | null> {
    const certificate = await this.certificates.lastOf(queries, periodId);
    if (!certificate) return null;
    const now = await this.nowAt(queries, certificate.schoolId);
    return this.stateOf(queries, certificate, await this.standings.ofPeriod(queries, periodId), now);
  }

  /** Of each choice of courses the last certificate, and how far each course of the period is from one. */
  async ofCourses(periodId: number): Promise<CourseCertificatesReply> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const standingOf = await this.standings.byCourses(queries, periodId);
      const { certificates, certified } = await this.courseCertificates(queries, period, standingOf);
      const courses = [...sectionsByCourse(await this.reportingSections(queries, period))].map(([course, sections]) => {
        const { run, findings, waiverOf, blocking, changed } = standingOf([course.id]);
        const { id, code, title, department } = course;
        const open = run ? findings.filter((finding) => waiverOf(finding)?.state !== 'holds').length : 0;
        const found = { sections: sections.length, blocking, open, changed, isCertified: certified.has(id) };
        return { id, code, title, department, ...found };
      });
      return { certificates, courses };
    });
  }

  /** What a seal may rest on: the certificate of all of the period where it holds, or else some of its courses that leave out none. */
  async ofSeal(queries: Queries, period: SchoolPeriod): Promise<SealCertificates> {
    const last = await this.replyOf(queries, period.id);
    if (last?.broken.length === 0) return { last, holding: [last] };
    const standingOf = await this.standings.byCourses(queries, period.id);
    const { certificates, certified } = await this.courseCertificates(queries, period, standingOf);
    if (certified.size === 0) return { last, holding: [] };
    const sections = await this.reportingSections(queries, period);
    const isAll = sections.every(({ course }) => certified.has(course.id));
    return { last, holding: isAll ? certificates.filter(({ broken }) => broken.length === 0) : [] };
  }

  /** The last certificate of each choice of courses, and the courses for which one holds. */
  private async courseCertificates(
    queries: Queries,
    { id, schoolId }: SchoolPeriod,
    standingOf: (courseIds: readonly number[]) => AuditStanding,
  ): Promise<{ readonly certificates: CertificateReply[]; readonly certified: ReadonlySet<number> }> {
    const now = await this.nowAt(queries, schoolId);
    const certificates: CertificateReply[] = [];
    const certified = new Set<number>();
    for (const certificate of await this.certificates.ofCourses(queries, id)) {
      const reply = await this.stateOf(queries, certificate, standingOf(certificate.courseIds), now);
      certificates.push(reply);
      if (reply.broken.length === 0) for (const each of certificate.courseIds) certified.add(each);
    }
    return { certificates, certified };
  }

  /**
   * What a certificate tells, and what of it no longer holds.
   * @param id of which; without one, the last of all of the period
   * @throws Refusal not-found where none was issued
   */
  async oneOrThrow(
    queries: Queries,
    periodId: number,
    id?: number,
  ): Promise<{ readonly certificate: Certificate; readonly broken: CertificateReply['broken'] }> {
    const certificate = await (id === undefined
      ? this.certificates.lastOf(queries, periodId)
      : this.certificates.byId(queries, periodId, id));
    if (!certificate) throw new Refusal('not-found', { what: 'certificate of the period', id: id ?? periodId });
    const standing = (await this.standings.byCourses(queries, periodId))(certificate.courseIds);
    const now = await this.nowAt(queries, certificate.schoolId);
    return { certificate, broken: (await this.stateOf(queries, certificate, standing, now)).broken };
  }

  private async nowAt(queries: Queries, schoolId: number): Promise<SchoolNow> {
    return {
      rules: await this.settings.inForce(queries, schoolId),
      courses: await this.courses.ofSchool(queries, schoolId),
    };
  }

  /** A certificate, and what of it no longer holds as the audit stands. */
  private async stateOf(
    queries: Queries,
    { id, periodId, courseIds, issuedByName, issuedAt, note, gradesHash, facts }: Certificate,
    { findings, waiverOf, blocking }: AuditStanding,
    { rules, courses }: SchoolNow,
  ): Promise<CertificateReply> {
    const waived = findings.filter((finding) => waiverOf(finding)?.state === 'holds').map(findingKey);
    // What a rule is told of other courses is no matter of these.
    const own = courses.filter(({ id: courseId }) => courseIds.includes(courseId));
    const narrowed = (all: readonly RuleInForce[]) =>
      courseIds.length > 0 ? all.map((rule) => inForceFor(rule, own)) : all;
    return {
      id,
      courses: facts.courses,
      by: issuedByName,
      at: issuedAt.toISOString(),
      note,
      grades: facts.grades,
      waivers: facts.waivers.length,
      gradesHash,
      broken: whatBroke(
        { gradesHash, rules: narrowed(facts.rules), waived: facts.waivers.map(({ key }) => key) },
        {
          gradesHash: await this.certificates.gradesHash(queries, periodId, courseIds),
          rules: narrowed(rules),
          waived,
          blocking,
        },
      ),
    };
  }

  /** Sections that report something in the period. */
  private async reportingSections(queries: Queries, period: SchoolPeriod): Promise<RunningSection[]> {
    const { sections, reported } = await this.views.of(queries, period);
    const reporting = new Set(reported.flatMap((each) => each.sections.map(({ id }) => id)));
    return sections.filter(({ id }) => reporting.has(id));
  }

  /** The sections of chosen courses; null where none is chosen, which is all. */
  private async sectionsOrThrow(
    queries: Queries,
    period: SchoolPeriod,
    courseIds: readonly number[],
  ): Promise<RunningSection[] | null> {
    if (courseIds.length === 0) return null;
    const sections = await this.reportingSections(queries, period);
    const known = new Set(sections.map(({ course }) => course.id));
    if (courseIds.some((id) => !known.has(id)))
      throw new Refusal('fields-wrong', {}, [
        { field: 'courseIds', detail: `courses that report something in ${period.name}` },
      ]);
    return sections.filter(({ course }) => courseIds.includes(course.id));
  }

  /** How many grades of some sections an audit checks. */
  private async gradesIn(queries: Queries, period: SchoolPeriod, sections: readonly RunningSection[]): Promise<number> {
    const only = new Set(sections.map(({ id }) => id));
    return (await this.snapshots.ofPeriod(queries, period, only)).graded.length;
  }

  private async factsOf(
    queries: Queries,
    run: AuditRun,
    { courseIds, findings, waiverOf }: AuditStanding,
  ): Promise<Omit<Certificate['facts'], 'grades'>> {
    const waived = findings.flatMap((finding) => {
      const waiver = waiverOf(finding);
      return waiver?.state === 'holds' ? [{ finding, waiver }] : [];
    });
    const names = await this.runs.namesOf(
      queries,
      waived.map(({ finding }) => finding),
    );
    const courses = await this.courses.ofSchool(queries, run.schoolId);
    const titleOf = new Map(courses.map(({ id, title }) => [id, title]));
    const count = (all: readonly Finding[], id: string) => all.filter(({ ruleId }) => ruleId === id).length;
    return {
      courses: courses.filter(({ id }) => courseIds.includes(id)).map(({ code, title }) => `${title} (${code})`),
      runAt: run.startedAt.toISOString(),
      rules: auditRules.map(({ id, summary }) => {
        const { version, severity, threshold, exceptions } = inForceIn(run, id);
        return {
          id,
          version,
          severity,
          threshold,
          exceptions,
          summary,
          leftAlone: [...exceptions.departments, ...exceptions.courses.flatMap((each) => titleOf.get(each) ?? [])],
          found: count(findings, id),
          waived: count(
            waived.map(({ finding }) => finding),
            id,
          ),
        };
      }),
      told: await this.notices.toldIn(queries, run.periodId, courseIds),
      waivers: waived.map(({ finding, waiver: { reason, until, by, at } }, index) => ({
        key: findingKey(finding),
        summary: ruleById.get(finding.ruleId)!.summary,
        subject: subjectOf(names[index]!),
        sentence: findingSentence(ruleById.get(finding.ruleId)!, finding),
        reason,
        until,
        by,
        at,
      })),
    };
  }
}

/** What every certificate of a school is compared with. */
interface SchoolNow {
  readonly rules: readonly RuleInForce[];
  readonly courses: readonly Course[];
}

/** Courses by title, each with its sections. */
function sectionsByCourse(
  sections: readonly RunningSection[],
): ReadonlyMap<Pick<Course, 'id' | 'code' | 'title' | 'department'>, RunningSection[]> {
  const found = new Map<number, RunningSection[]>();
  for (const section of sections) found.set(section.course.id, [...(found.get(section.course.id) ?? []), section]);
  const inOrder = [...found.values()].toSorted((a, b) =>
    `${a[0]!.course.title} ${a[0]!.course.code}`.localeCompare(`${b[0]!.course.title} ${b[0]!.course.code}`),
  );
  return new Map(inOrder.map((own) => [own[0]!.course, own]));
}
