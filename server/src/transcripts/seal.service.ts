import { Injectable } from '@nestjs/common';
import { isBlank } from '#core/posting';
import { brokenInWords } from '#contract/audit';
import type { ReadinessReply, ReadinessStepReply } from '#contract/transcripts';
import {
  AuditStandingsService,
  CertificatesService,
  doneOrThrow,
  SnapshotService,
  type AuditRun,
  type AuditStanding,
  type PeriodSnapshot,
  type SealCertificates,
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
  readonly standing: AuditStanding;
  readonly certificates: SealCertificates;
  readonly entries: readonly StudentEntry[];
}

@Injectable()
export class SealService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly standings: AuditStandingsService,
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
        certificates: readiness.certificates.holding.map((certificate) => certificate.id),
      };
      await this.log.record(queries, actor, [{ action: 'seal period', thing: `seal ${id}`, before: null, after }]);
      return (await this.look(queries, period)).reply;
    });
  }

  private async look(queries: Queries, period: SchoolPeriod): Promise<Readiness> {
    const taken = await this.snapshots.ofPeriod(queries, period);
    const entries = studentEntries(taken.graded, taken.snapshot.codes);
    const standing = await this.standings.ofPeriod(queries, period.id);
    const { run } = standing;
    const seal = await this.seals.ofPeriod(queries, period.id);
    const certificates = await this.certificates.ofSeal(queries, period);
    const expected = taken.graded.filter(({ row }) => row.withdrawnOn === null);
    const steps = this.steps(taken, standing, certificates);
    return {
      standing,
      certificates,
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

  private steps(
    { graded }: PeriodSnapshot,
    { run, fault, changed, blocking }: AuditStanding,
    { last, holding }: SealCertificates,
  ): ReadinessStepReply[] {
    const blank = graded.filter(({ row }) => row.withdrawnOn === null && isBlank(row.mark)).length;
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
      { code: 'audited', isDone: run !== undefined && !fault, isNeeded: true, count: run?.rules.length ?? 0 },
      { code: 'unchanged', isDone: run !== undefined && changed === 0, isNeeded: true, count: changed },
      { code: 'settled', isDone: run !== undefined && blocking === 0, isNeeded: true, count: blocking },
      {
        code: 'certified',
        isDone: holding.length > 0,
        isNeeded: true,
        count: holding.length || (last ? 1 : 0),
      },
    ];
  }
}

/** @returns the audit that the seal rests on */
function refuseUnready({ reply, standing, certificates }: Readiness, period: SchoolPeriod): AuditRun {
  if (reply.seal) throw new Refusal('already-sealed', { period: period.name, at: reply.seal.at.slice(0, 10) });
  const run = doneOrThrow(period, standing);
  const blank = reply.steps.find(({ code }) => code === 'posted')!.count;
  if (blank > 0) throw new Refusal('findings-block', { count: blank, period: period.name });
  const { last, holding } = certificates;
  if (holding.length > 0) return run;
  if (!last) throw new Refusal('certificate-needed', { period: period.name });
  throw new Refusal('certificate-broken', { period: period.name, broken: brokenInWords(last.broken) });
}
