import { Injectable } from '@nestjs/common';
import { auditRules, compareRuns, findingKey, runEachRule, type Finding } from '#core/audit';
import { formatDecimal } from '#core/numbers';
import { findingSentence, type AuditReply, type AuditRunReply, type FindingReply } from '#contract/audit';
import { bodyOfMark } from '#contract/posting';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { computedValue } from '#server/posting';
import { ChangeLog } from '#server/changes';
import { Clock, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository, effectIn, subjectOf, type AuditRun, type FindingNames } from './audit-runs.repository.js';
import { FindingNoticesRepository } from './finding-notices.repository.js';
import { CertificatesService } from './certificates.service.js';
import { RuleSettingsRepository } from './rule-settings.repository.js';
import { WaiversService } from './waivers.service.js';
import { SnapshotService, type GradedRow } from './snapshot.service.js';

const ruleById = new Map(auditRules.map((rule) => [rule.id, rule]));

@Injectable()
export class AuditService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly recalculation: RecalculationService,
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
    private readonly notices: FindingNoticesRepository,
    private readonly certificates: CertificatesService,
    private readonly settings: RuleSettingsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** Runs every rule over a period, its grade books calculated first where they are stale, and keeps what they found. */
  async run(actor: Actor, periodId: number): Promise<AuditReply> {
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    const startedAt = this.clock.now();
    // Of one state: whatever is saved meanwhile shows as changed since.
    const { period, inForce, snapshot } = await this.transactions.snapshot(async (queries) => {
      const audited = await this.periods.byIdOrThrow(queries, periodId);
      const rules = await this.settings.inForce(queries, audited.schoolId);
      return {
        period: audited,
        inForce: new Map(rules.map(({ id, severity }) => [id, severity])),
        ...(await this.snapshots.ofAudit(queries, audited)),
      };
    });
    const { findings, faults } = runEachRule(
      auditRules.filter(({ id }) => inForce.get(id) !== 'off'),
      snapshot,
    );
    const problemOf = new Map(faults.map(({ ruleId, problem }) => [ruleId, problem]));
    const run = {
      schoolId: period.schoolId,
      periodId,
      startedBy: actor.personId,
      startedAt,
      gradesChecked: snapshot.grades.length,
      milliseconds: this.clock.now().getTime() - startedAt.getTime(),
      rules: auditRules.map(({ id, version }) => {
        const problem = problemOf.get(id);
        return { id, version, severity: inForce.get(id)!, ...(problem !== undefined && { problem }) };
      }),
    };
    await this.transactions.run(async (queries) => {
      const id = await this.runs.add(queries, run, findings);
      const after = { grades: run.gradesChecked, findings: findings.length, rules: run.rules };
      await this.log.record(queries, actor, [{ action: 'run audit', thing: `audit ${id}`, before: null, after }]);
    });
    return this.latest(periodId);
  }

  /** The newest run of a period, compared with the one before it. */
  async latest(periodId: number): Promise<AuditReply> {
    return this.transactions.snapshot(async (queries) => {
      const [run, before] = await this.runs.newest(queries, periodId, 2);
      const inForce =
        run?.rules ??
        (await this.settings.inForce(queries, (await this.periods.byIdOrThrow(queries, periodId)).schoolId));
      const rules = auditRules.map(({ id, version, family, scope, severity: own, summary, why, fix }) => {
        const effect = effectIn({ rules: inForce }, id);
        return {
          id,
          version,
          family,
          scope,
          severity: effect === 'off' ? own : effect,
          isOff: effect === 'off',
          summary,
          why,
          fix: fix?.says ?? null,
        };
      });
      const certificate = await this.certificates.replyOf(queries, periodId);
      return { rules, run: run ? await this.runReply(queries, run, before) : null, certificate };
    });
  }

  private async runReply(queries: Queries, run: AuditRun, before: AuditRun | undefined): Promise<AuditRunReply> {
    const findings = await this.runs.findingsOf(queries, run.id);
    const earlier = before && (await this.runs.findingsOf(queries, before.id));
    const compared = compareRuns((earlier ?? []).map(findingKey), findings.map(findingKey));
    const period = await this.periods.byIdOrThrow(queries, run.periodId);
    const { graded } = await this.snapshots.ofPeriod(queries, period);
    const waiverOf = await this.waivers.ofPeriod(queries, run.periodId);
    const names = await this.runs.namesOf(queries, findings);
    const notices = await this.notices.ofPeriod(queries, run.periodId);
    const noticeOf = (finding: Finding, graded: GradedRow | undefined) => {
      const notice = notices.get(findingKey(finding));
      if (!notice) return null;
      const { to, at } = notice;
      const postedAt = graded?.row.postedAt ?? null;
      return { to, at: at.toISOString(), isAnswered: postedAt !== null && postedAt > at };
    };
    const rows = new Map(graded.map((each) => [`${each.row.enrollmentId}:${each.reporting.item.id}`, each]));
    return {
      id: run.id,
      startedBy: run.startedByName,
      startedAt: run.startedAt.toISOString(),
      gradesChecked: run.gradesChecked,
      milliseconds: run.milliseconds,
      faults: run.rules.flatMap(({ id, problem }) => (problem === undefined ? [] : [{ ruleId: id, problem }])),
      findings: findings.map((finding, at) => {
        const graded = rows.get(`${finding.enrollmentId}:${finding.itemId}`);
        return {
          ...findingReply(finding, names[at]!, graded),
          isNew: before !== undefined && compared.added.has(findingKey(finding)),
          waiver: waiverOf(finding),
          notice: noticeOf(finding, graded),
        };
      }),
      sinceLastRun: before
        ? {
            added: compared.added.size,
            still: compared.still.size,
            gone: compared.gone.size,
            at: before.startedAt.toISOString(),
          }
        : null,
      changedSince: await this.runs.changedSince(queries, run.periodId, run.startedAt),
    };
  }
}

/** A grade of which only the finding knows, as its course no longer reports the item, has no mark. */
function findingReply(
  finding: Finding,
  { sectionId, ...names }: FindingNames,
  graded: GradedRow | undefined,
): Omit<FindingReply, 'waiver' | 'notice' | 'isNew'> {
  const value = graded && computedValue(graded.row, graded.scale);
  const { message: _message, data: _data, ...place } = finding;
  return {
    ...place,
    ...names,
    key: findingKey(finding),
    sentence: findingSentence(ruleById.get(finding.ruleId)!, finding),
    subject: subjectOf({ sectionId, ...names }),
    openSectionId: sectionId,
    mark: graded ? bodyOfMark(graded.row.mark) : null,
    computed: value ? formatDecimal(value) : null,
    postedBy: graded?.row.postedBy ?? null,
    postedAt: graded?.row.postedAt?.toISOString() ?? null,
  };
}
