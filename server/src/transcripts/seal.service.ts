import { Injectable } from '@nestjs/common';
import { isBlank } from '#core/posting';
import { brokenInWords, type CertificateReply } from '#contract/audit';
import type { ReadinessReply, ReadinessStepReply } from '#contract/transcripts';
import {
  AuditRunsRepository,
  CertificatesService,
  effectIn,
  SnapshotService,
  type AuditRun,
  type PeriodSnapshot,
  WaiversService,
} from '#server/audit';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { SheetContextService } from '#server/posting';
import { SealsRepository } from './seals.repository.js';
import { studentEntries, type StudentEntry } from './transcript-entries.js';

/** What is so before a seal, and what it would write. */
interface Readiness {
  readonly reply: ReadinessReply;
  readonly run: AuditRun | undefined;
  readonly certificate: CertificateReply | null;
  readonly entries: readonly StudentEntry[];
}

@Injectable()
export class SealService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly runs: AuditRunsRepository,
    private readonly waivers: WaiversService,
    private readonly certificates: CertificatesService,
    private readonly seals: SealsRepository,
    private readonly contexts: SheetContextService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  async readiness(periodId: number): Promise<ReadinessReply> {
    return this.transactions.snapshot(async (queries) => {
      return (await this.look(queries, await this.periods.byIdOrThrow(queries, periodId))).reply;
    });
  }

  /** Copies the period's grades onto the transcripts, all of them or none. */
  async seal(actor: Actor, periodId: number): Promise<ReadinessReply> {
    return this.transactions.run(async (queries) => {
      await this.seals.lockPeriod(queries, periodId);
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const readiness = await this.look(queries, period);
      const run = refuseUnready(readiness, period);
      const seal = {
        schoolId: period.schoolId,
        periodId,
        auditRunId: run.id,
        sealedBy: actor.personId,
        sealedAt: this.clock.now(),
        entryCount: readiness.entries.length,
      };
      const id = await this.seals.add(queries, seal, readiness.entries);
      const after = {
        period: period.name,
        entries: seal.entryCount,
        audit: run.id,
        certificate: readiness.certificate!.id,
      };
      await this.log.record(queries, actor, [{ action: 'seal period', thing: `seal ${id}`, before: null, after }]);
      return (await this.look(queries, period)).reply;
    });
  }

  private async look(queries: Queries, period: SchoolPeriod): Promise<Readiness> {
    const taken = await this.snapshots.ofPeriod(queries, period);
    const entries = studentEntries(taken.graded, taken.snapshot.codes);
    const [run] = await this.runs.newest(queries, period.id, 1);
    const seal = await this.seals.ofPeriod(queries, period.id);
    const certificate = await this.certificates.replyOf(queries, period.id);
    const expected = taken.graded.filter(({ row }) => row.withdrawnOn === null);
    const steps = await this.steps(queries, period, taken, run, certificate);
    return {
      run,
      certificate,
      entries,
      reply: {
        steps,
        isReady: !seal && steps.every(({ isDone, isNeeded }) => isDone || !isNeeded),
        expected: expected.length,
        posted: expected.filter(({ row }) => !isBlank(row.mark)).length,
        students: new Set(entries.map(({ studentId }) => studentId)).size,
        entries: entries.length,
        audit: run ? { at: run.startedAt.toISOString(), by: run.startedByName, rules: run.rules.length } : null,
        seal: seal ? { at: seal.sealedAt.toISOString(), by: seal.sealedBy, entries: seal.entryCount } : null,
      },
    };
  }

  private async steps(
    queries: Queries,
    period: SchoolPeriod,
    { graded }: PeriodSnapshot,
    run: AuditRun | undefined,
    certificate: CertificateReply | null,
  ): Promise<ReadinessStepReply[]> {
    const blank = graded.filter(({ row }) => row.withdrawnOn === null && isBlank(row.mark)).length;
    const changed = run ? await this.runs.changedSince(queries, period.id, run.startedAt) : 0;
    const findings = run ? await this.runs.findingsOf(queries, run.id) : [];
    const waiverOf = await this.waivers.ofPeriod(queries, period.id);
    const unsettled = findings.filter(
      (finding) => run && effectIn(run, finding.ruleId) === 'blocks' && waiverOf(finding)?.state !== 'holds',
    ).length;
    const reported = graded[0]?.reporting;
    const window = reported ? this.contexts.windowOf(reported) : null;
    return [
      {
        code: 'window',
        isDone: window?.state !== 'open' && window?.state !== 'not yet open',
        isNeeded: false,
        count: 0,
      },
      { code: 'posted', isDone: blank === 0, isNeeded: true, count: blank },
      { code: 'audited', isDone: run !== undefined && !faultOf(run), isNeeded: true, count: run?.rules.length ?? 0 },
      { code: 'unchanged', isDone: run !== undefined && changed === 0, isNeeded: true, count: changed },
      { code: 'settled', isDone: run !== undefined && unsettled === 0, isNeeded: true, count: unsettled },
      { code: 'certified', isDone: certificate?.broken.length === 0, isNeeded: true, count: certificate ? 1 : 0 },
    ];
  }
}

/** A rule that could not run; what it would have found is not known. */
const faultOf = ({ rules }: AuditRun) => rules.find(({ problem }) => problem !== undefined);

/** @returns the audit that the seal rests on */
function refuseUnready({ reply, run, certificate }: Readiness, period: SchoolPeriod): AuditRun {
  const step = (code: ReadinessStepReply['code']) => reply.steps.find((each) => each.code === code)!;
  if (reply.seal) throw new Refusal('already-sealed', { period: period.name, at: reply.seal.at.slice(0, 10) });
  if (!run) throw new Refusal('audit-needed', { period: period.name });
  const fault = faultOf(run);
  if (fault) throw new Refusal('audit-incomplete', { period: period.name, rule: fault.id, problem: fault.problem! });
  if (!step('unchanged').isDone) throw new Refusal('audit-outdated', { at: run.startedAt.toISOString() });
  const open = step('settled').count + (step('settled').isDone ? step('posted').count : 0);
  if (open > 0) throw new Refusal('findings-block', { count: open, period: period.name });
  if (!certificate) throw new Refusal('certificate-needed', { period: period.name });
  if (certificate.broken.length > 0) {
    const broken = brokenInWords(certificate.broken);
    throw new Refusal('certificate-broken', { period: period.name, broken });
  }
  return run;
}
