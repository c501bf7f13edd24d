import { Injectable } from '@nestjs/common';
import { auditRules, findingKey, whatBroke, type Finding } from '#core/audit';
import { findingSentence, type CertificateReply, type CertifyRequest } from '#contract/audit';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository, effectIn, subjectOf, type AuditRun } from './audit-runs.repository.js';
import { CertificatesRepository, type Certificate } from './certificates.repository.js';
import { RuleSettingsRepository } from './rule-settings.repository.js';
import { WaiversService } from './waivers.service.js';

const ruleOf = new Map(auditRules.map((rule) => [rule.id, rule]));

/** How far the audit of a period is, as a certificate asks. */
interface Standing {
  readonly run: AuditRun | undefined;
  readonly findings: readonly Finding[];
  readonly waiverOf: Awaited<ReturnType<WaiversService['ofPeriod']>>;
  /** Findings that keep the period from being sealed and that nobody let stand. */
  readonly blocking: number;
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
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal audit-needed, audit-incomplete, audit-outdated or findings-block while the audit is not done; period-sealed */
  async issue(actor: Actor, { periodId, note }: CertifyRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      await this.periods.holdUnsealedOrThrow(queries, period);
      const standing = await this.standingOf(queries, periodId);
      const run = await this.doneOrThrow(queries, period, standing);
      const certificate = {
        schoolId: period.schoolId,
        periodId,
        runId: run.id,
        issuedBy: actor.personId,
        issuedAt: this.clock.now(),
        note: note.trim(),
        gradesHash: await this.certificates.gradesHash(queries, periodId),
        facts: await this.factsOf(queries, run, standing),
      };
      const id = await this.certificates.add(queries, certificate);
      const { gradesHash, facts } = certificate;
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

  private async standingOf(queries: Queries, periodId: number): Promise<Standing> {
    const [run] = await this.runs.newest(queries, periodId, 1);
    const findings = run ? await this.runs.findingsOf(queries, run.id) : [];
    const waiverOf = await this.waivers.ofPeriod(queries, periodId);
    const blocking = findings.filter(
      (finding) => run && effectIn(run, finding.ruleId) === 'blocks' && waiverOf(finding)?.state !== 'holds',
    ).length;
    return { run, findings, waiverOf, blocking };
  }

  private async doneOrThrow(queries: Queries, period: SchoolPeriod, { run, blocking }: Standing): Promise<AuditRun> {
    if (!run) throw new Refusal('audit-needed', { period: period.name });
    const fault = run.rules.find(({ problem }) => problem !== undefined);
    if (fault) throw new Refusal('audit-incomplete', { period: period.name, rule: fault.id, problem: fault.problem! });
    if ((await this.runs.changedSince(queries, period.id, run.startedAt)) > 0)
      throw new Refusal('audit-outdated', { at: run.startedAt.toISOString() });
    if (blocking > 0) throw new Refusal('findings-block', { count: blocking, period: period.name });
    return run;
  }

  private async factsOf(
    queries: Queries,
    run: AuditRun,
    { findings, waiverOf }: Standing,
  ): Promise<Certificate['facts']> {
    const waived = findings.flatMap((finding) => {
      const waiver = waiverOf(finding);
      return waiver?.state === 'holds' ? [{ finding, waiver }] : [];
    });
    const names = await this.runs.namesOf(
      queries,
      waived.map(({ finding }) => finding),
    );
    const count = (all: readonly Finding[], id: string) => all.filter(({ ruleId }) => ruleId === id).length;
    return {
      runAt: run.startedAt.toISOString(),
      grades: run.gradesChecked,
      rules: auditRules.map(({ id, version, summary }) => ({
        id,
        version,
        summary,
        severity: effectIn(run, id),
        found: count(findings, id),
        waived: count(
          waived.map(({ finding }) => finding),
          id,
        ),
      })),
      waivers: waived.map(({ finding, waiver: { reason, until, by, at } }, index) => ({
        key: findingKey(finding),
        summary: ruleOf.get(finding.ruleId)!.summary,
        subject: subjectOf(names[index]!),
        sentence: findingSentence(ruleOf.get(finding.ruleId)!, finding),
        reason,
        until,
        by,
        at,
      })),
    };
  }
}
