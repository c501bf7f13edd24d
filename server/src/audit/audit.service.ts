import { Injectable } from '@nestjs/common';
import { auditRules, compareRuns, findingKey, type Finding } from '#core/audit';
import { formatDecimal } from '#core/numbers';
import { problemOf } from '#contract/problems';
import {
  findingSentence,
  type AuditProgressReply,
  type AuditReply,
  type AuditRunReply,
  type FindingReply,
} from '#contract/audit';
import { bodyOfMark } from '#contract/posting';
import { RuleSettingsRepository } from '#server/audit-rules';
import { PeriodsRepository } from '#server/calendar';
import { computedValue } from '#server/posting';
import { ChangeLog } from '#server/changes';
import { Clock, keptRefusal, Transactions, type KeptProblem, type Actor, type Queries } from '#server/platform';
import {
  AuditRunsRepository,
  inForceIn,
  subjectOf,
  type AuditRun,
  type FindingNames,
} from './runs/audit-runs.repository.js';
import { AuditTasksRepository } from './runs/audit-tasks.repository.js';
import { AuditWork } from './runs/audit-work.js';
import { FindingNotesService } from './settling/finding-notes.service.js';
import { FindingNoticesRepository } from './settling/finding-notices.repository.js';
import { CertificatesService } from './certificates/certificates.service.js';
import { WaiversService } from './settling/waivers.service.js';
import { SnapshotService, type GradedRow } from './runs/snapshot.service.js';

const ruleById = new Map(auditRules.map((rule) => [rule.id, rule]));

@Injectable()
export class AuditService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly work: AuditWork,
    private readonly tasks: AuditTasksRepository,
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
    private readonly notes: FindingNotesService,
    private readonly notices: FindingNoticesRepository,
    private readonly certificates: CertificatesService,
    private readonly settings: RuleSettingsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** Begins the audit of a period, or joins the one that is under way. */
  async start(actor: Pick<Actor, 'personId'>, periodId: number): Promise<AuditProgressReply> {
    const id = await this.begin(actor, periodId);
    if (id !== undefined) await this.work.held.begin(id);
    return this.progress(periodId);
  }

  /** Audits a period here and now. @throws Error where the audit came to nothing */
  async runNow(actor: Actor, periodId: number): Promise<void> {
    const id = await this.begin(actor, periodId);
    if (id !== undefined) await this.work.held.workNow(id);
    const task = await this.tasks.ofPeriod(this.transactions.reading, periodId);
    if (task) throw new Error(`the audit of period ${periodId} is ${task.state}`);
  }

  private begin({ personId }: Pick<Actor, 'personId'>, periodId: number): Promise<number | undefined> {
    return this.transactions.run(async (queries) => {
      await this.periods.byIdOrThrow(queries, periodId);
      const task = { periodId, startedBy: personId, startedAt: this.clock.now(), ruleCount: auditRules.length };
      return this.tasks.begin(queries, task);
    });
  }

  /** Stops the audit that is under way, whoever began it; what was found before stays. */
  async stop(actor: Actor, periodId: number): Promise<AuditProgressReply> {
    const stopped = await this.transactions.run(async (queries) => {
      const id = await this.tasks.stop(queries, periodId);
      if (id !== undefined)
        await this.log.record(queries, actor, [
          { action: 'stop audit', thing: `period ${periodId}`, before: null, after: { state: 'stopped' } },
        ]);
      return id;
    });
    if (stopped !== undefined) this.work.held.interrupt(stopped);
    return this.progress(periodId);
  }

  /** How far the audit of a period is. */
  async progress(periodId: number): Promise<AuditProgressReply> {
    const task = await this.tasks.ofPeriod(this.transactions.reading, periodId);
    const [run] = await this.runs.newest(this.transactions.reading, periodId, 1);
    const runId = run?.id ?? null;
    if (!task) return { task: null, runId };
    const { state, startedByName, startedAt, rulesDone, ruleCount, problem } = task;
    return {
      task: {
        state,
        startedBy: startedByName,
        startedAt: startedAt.toISOString(),
        rulesDone,
        ruleCount,
        problem: sayProblem(problem),
      },
      runId,
    };
  }

  /** The newest run of a period, compared with the one before it. */
  async latest(periodId: number): Promise<AuditReply> {
    return this.transactions.snapshot(async (queries) => {
      const [run, before] = await this.runs.newest(queries, periodId, 2);
      const inForce =
        run?.rules ??
        (await this.settings.inForce(queries, (await this.periods.byIdOrThrow(queries, periodId)).schoolId));
      const rules = auditRules.map(({ id, version, family, scope, severity: own, summary, why, fix }) => {
        const { severity: effect } = inForceIn({ rules: inForce }, id);
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
    const noteOf = await this.notes.ofPeriod(queries, run.periodId);
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
          note: noteOf(finding),
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

function sayProblem(problem: KeptProblem | null): string | null {
  const refusal = keptRefusal(problem);
  return refusal && problemOf(refusal.code, refusal.data, []).detail;
}

/** A grade of which only the finding knows, as its course no longer reports the item, has no mark. */
function findingReply(
  finding: Finding,
  { sectionId, ...names }: FindingNames,
  graded: GradedRow | undefined,
): Omit<FindingReply, 'waiver' | 'note' | 'notice' | 'isNew'> {
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
