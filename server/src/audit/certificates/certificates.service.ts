import { Injectable } from '@nestjs/common';
import { auditRules, findingKey, ruleById, whatBroke, type Finding } from '#core/audit';
import { findingSentence, type CertificateReply, type CertifyRequest } from '#contract/audit';
import { RuleSettingsRepository } from '#server/audit-rules';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { CoursesRepository } from '#server/courses';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository, inForceIn, subjectOf, type AuditRun } from '../runs/audit-runs.repository.js';
import { CertificatesRepository, type Certificate } from './certificates.repository.js';
import { FindingNoticesRepository } from '../settling/finding-notices.repository.js';
import { WaiversService } from '../settling/waivers.service.js';

/** How far the audit of a period is, as a certificate and a seal ask. */
export interface AuditStanding {
  readonly run: AuditRun | undefined;
  readonly findings: readonly Finding[];
  readonly waiverOf: Awaited<ReturnType<WaiversService['ofPeriod']>>;
  /** Findings that keep the period from being sealed and that nobody let stand. */
  readonly blocking: number;
  /** A rule that could not run; what it would have found is not known. */
  readonly fault: AuditRun['rules'][number] | undefined;
  /** Grades saved after the run began. */
  readonly changed: number;
}

/** Closes the audit of a period: what was checked, by which rules, what was let stand and why. */
@Injectable()
export class CertificatesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
    private readonly certificates: CertificatesRepository,
    private readonly settings: RuleSettingsRepository,
    private readonly courses: CoursesRepository,
    private readonly notices: FindingNoticesRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal audit-needed, audit-incomplete, audit-outdated or findings-block while the audit is not done; period-sealed */
  async issue(actor: Actor, { periodId, note }: CertifyRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      await this.periods.holdUnsealedOrThrow(queries, period);
      // Before the grades are asked whether they changed: one that is saved in between is refused or breaks the certificate.
      const gradesHash = await this.certificates.gradesHash(queries, periodId);
      const standing = await this.standingOf(queries, periodId);
      const run = doneOrThrow(period, standing);
      const certificate = {
        schoolId: period.schoolId,
        periodId,
        runId: run.id,
        issuedBy: actor.personId,
        issuedAt: this.clock.now(),
        note: note.trim(),
        gradesHash,
        facts: await this.factsOf(queries, run, standing),
      };
      const id = await this.certificates.add(queries, certificate);
      const { facts } = certificate;
      const after = {
        period: period.name,
        audit: run.id,
        grades: facts.grades,
        waivers: facts.waivers.length,
        gradesHash,
      };
      await this.log.record(queries, actor, [
        { action: 'issue certificate', thing: `certificate ${id}`, before: null, after },
      ]);
    });
  }

  /** The last certificate of a period, and whether it still holds. */
  async replyOf(queries: Queries, periodId: number): Promise<CertificateReply | null> {
    const certificate = await this.certificates.lastOf(queries, periodId);
    if (!certificate) return null;
    const { id, issuedByName, issuedAt, note, gradesHash, facts } = certificate;
    const { findings, waiverOf, blocking } = await this.standingOf(queries, periodId);
    const rules = await this.settings.inForce(queries, certificate.schoolId);
    const waived = findings.filter((finding) => waiverOf(finding)?.state === 'holds').map(findingKey);
    return {
      id,
      by: issuedByName,
      at: issuedAt.toISOString(),
      note,
      grades: facts.grades,
      waivers: facts.waivers.length,
      gradesHash,
      broken: whatBroke(
        { gradesHash, rules: facts.rules, waived: facts.waivers.map(({ key }) => key) },
        { gradesHash: await this.certificates.gradesHash(queries, periodId), rules, waived, blocking },
      ),
    };
  }

  /** What the paper tells. @throws Refusal not-found where none was issued */
  async lastOrThrow(queries: Queries, periodId: number): Promise<Certificate> {
    const certificate = await this.certificates.lastOf(queries, periodId);
    if (!certificate) throw new Refusal('not-found', { what: 'certificate of the period', id: periodId });
    return certificate;
  }

  /** Of the last audit of a period. */
  async standingOf(queries: Queries, periodId: number): Promise<AuditStanding> {
    const [run] = await this.runs.newest(queries, periodId, 1);
    const findings = run ? await this.runs.findingsOf(queries, run.id) : [];
    const waiverOf = await this.waivers.ofPeriod(queries, periodId);
    const blocking = findings.filter(
      (finding) => run && inForceIn(run, finding.ruleId).severity === 'blocks' && waiverOf(finding)?.state !== 'holds',
    ).length;
    const fault = run?.rules.find(({ problem }) => problem !== undefined);
    const changed = run ? await this.runs.changedSince(queries, periodId, run.startedAt) : 0;
    return { run, findings, waiverOf, blocking, fault, changed };
  }

  private async factsOf(
    queries: Queries,
    run: AuditRun,
    { findings, waiverOf }: AuditStanding,
  ): Promise<Certificate['facts']> {
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
      runAt: run.startedAt.toISOString(),
      grades: run.gradesChecked,
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
      told: await this.notices.toldIn(queries, run.periodId),
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

/**
 * The run of an audit that is done.
 * @throws Refusal audit-needed, audit-incomplete, audit-outdated, findings-block
 */
export function doneOrThrow(
  { name }: Pick<SchoolPeriod, 'name'>,
  { run, fault, changed, blocking }: AuditStanding,
): AuditRun {
  if (!run) throw new Refusal('audit-needed', { period: name });
  if (fault) throw new Refusal('audit-incomplete', { period: name, rule: fault.id, problem: fault.problem! });
  if (changed > 0) throw new Refusal('audit-outdated', { at: run.startedAt.toISOString() });
  if (blocking > 0) throw new Refusal('findings-block', { count: blocking, period: name });
  return run;
}
