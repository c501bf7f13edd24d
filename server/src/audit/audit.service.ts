import { Injectable } from '@nestjs/common';
import { auditRules, compareRuns, findingKey, runRules, type Finding } from '#core/audit';
import { formatDecimal } from '#core/numbers';
import { findingSentence, type AuditReply, type AuditRunReply, type FindingReply } from '#contract/audit';
import { bodyOfMark } from '#contract/posting';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { computedValue } from '#server/posting';
import { ChangeLog } from '#server/changes';
import { Clock, Transactions, type Actor, type Queries } from '#server/platform';
import { AuditRunsRepository, type AuditRun } from './audit-runs.repository.js';
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
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** Runs every rule over a period, its grade books calculated first where they are stale, and keeps what they found. */
  async run(actor: Actor, periodId: number): Promise<AuditReply> {
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    const startedAt = this.clock.now();
    // Of one state: whatever is saved meanwhile shows as changed since.
    const { period, snapshot } = await this.transactions.snapshot(async (queries) => {
      const audited = await this.periods.byIdOrThrow(queries, periodId);
      return { period: audited, ...(await this.snapshots.ofPeriod(queries, audited)) };
    });
    const findings = runRules(auditRules, snapshot);
    const run = {
      schoolId: period.schoolId,
      periodId,
      startedBy: actor.personId,
      startedAt,
      gradesChecked: snapshot.grades.length,
      milliseconds: this.clock.now().getTime() - startedAt.getTime(),
      rules: auditRules.map(({ id, version }) => ({ id, version })),
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
      const rules = auditRules.map(({ id, version, family, severity, summary, why, fix }) => ({
        id,
        version,
        family,
        severity,
        summary,
        why,
        fix: fix?.says ?? null,
      }));
      return { rules, run: run ? await this.runReply(queries, run, before) : null };
    });
  }

  private async runReply(queries: Queries, run: AuditRun, before: AuditRun | undefined): Promise<AuditRunReply> {
    const findings = await this.runs.findingsOf(queries, run.id);
    const earlier = before && (await this.runs.findingsOf(queries, before.id));
    const compared = compareRuns((earlier ?? []).map(findingKey), findings.map(findingKey));
    const period = await this.periods.byIdOrThrow(queries, run.periodId);
    const { graded } = await this.snapshots.ofPeriod(queries, period);
    const waiverOf = await this.waivers.ofPeriod(queries, run.periodId);
    const rows = new Map(graded.map((each) => [`${each.row.enrollmentId}:${each.reporting.item.id}`, each]));
    return {
      id: run.id,
      startedBy: run.startedByName,
      startedAt: run.startedAt.toISOString(),
      gradesChecked: run.gradesChecked,
      milliseconds: run.milliseconds,
      // A grade whose course no longer reports the item has nowhere to be opened; the next run drops it.
      findings: findings.flatMap((finding) => {
        const graded = rows.get(`${finding.enrollmentId}:${finding.itemId}`);
        return graded
          ? [
              {
                ...findingReply(finding, graded, before !== undefined && compared.added.has(findingKey(finding))),
                waiver: waiverOf(finding),
              },
            ]
          : [];
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

function findingReply(
  finding: Finding,
  { row, section, reporting, scale }: GradedRow,
  isNew: boolean,
): Omit<FindingReply, 'waiver'> {
  const value = computedValue(row, scale);
  return {
    key: findingKey(finding),
    ruleId: finding.ruleId,
    sentence: findingSentence(ruleById.get(finding.ruleId)!, finding),
    enrollmentId: row.enrollmentId,
    studentId: row.studentId,
    student: row.student,
    sectionId: section.id,
    section: section.name,
    teacher: section.teacher,
    itemId: reporting.item.id,
    itemName: reporting.item.name,
    mark: bodyOfMark(row.mark),
    computed: value && formatDecimal(value),
    postedBy: row.postedBy,
    postedAt: row.postedAt?.toISOString() ?? null,
    isNew,
  };
}
