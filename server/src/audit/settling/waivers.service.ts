import { Injectable } from '@nestjs/common';
import { findingKey, ruleById, waiverState, type Finding } from '#core/audit';
import type { Day } from '#core/calendar';
import type { SeenFindingsRequest, FindingReply, WaiveRequest, WaiverReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { Changes, revisionOf } from '#server/changes';
import { Clock, DistrictZone, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { RecheckService } from '../runs/recheck.service.js';
import { AuditRunsRepository } from '../runs/audit-runs.repository.js';
import { periodFindingId } from './period-finding.js';
import { WaiversRepository, type NamedWaiver } from './waivers.repository.js';

/** Findings that are let stand for a reason. */
@Injectable()
export class WaiversService {
  constructor(
    private readonly transactions: Transactions,
    private readonly waivers: WaiversRepository,
    private readonly runs: AuditRunsRepository,
    private readonly rechecks: RecheckService,
    private readonly changes: Changes,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {}

  /** Lets findings of the last audit stand: all of them, or none. @throws Refusal not-found, fields-wrong, period-sealed, changed-meanwhile */
  async waive(actor: Actor, { periodId, findings, reason, until }: WaiveRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      if (until !== null && until < (await this.zone.today(queries)))
        throw new Refusal('fields-wrong', {}, [{ field: 'until', detail: 'today or a day to come, or nothing' }]);
      const found = await this.asTheyAre(queries, periodId, await this.runs.inLastOrThrow(queries, periodId, findings));
      const facts = {
        reason: reason.trim(),
        until,
        waivedBy: actor.personId,
        waivedAt: this.clock.now().toISOString(),
      };
      await this.changes.make(queries, actor, {
        action: `waive ${inWords(found)}`,
        why: facts.reason,
        edits: found.map(({ message, data, ...place }, at) => ({
          kind: 'waiver',
          id: periodFindingId({ ...place, periodId }),
          expected: findings[at]!.revision,
          after: { message, data, ...facts },
        })),
      });
    });
  }

  /** What is let stand is what is so now, as it was looked at; not what the audit saw before a grade was saved. */
  private async asTheyAre(queries: Queries, periodId: number, findings: readonly Finding[]): Promise<Finding[]> {
    const [run] = await this.runs.newest(queries, periodId, 1);
    const { still } = await this.rechecks.since(queries, run!);
    return findings.map((finding) => still.get(findingKey(finding)) ?? finding);
  }

  /** Ends waivers: their findings count again. @throws Refusal period-sealed, changed-meanwhile */
  async end(actor: Actor, { periodId, findings }: SeenFindingsRequest): Promise<void> {
    await this.transactions.run(async (queries) => {
      await this.changes.make(queries, actor, {
        action: `end ${counted(findings.length, 'waiver')}`,
        edits: findings.map((finding) => ({
          kind: 'waiver',
          id: periodFindingId({ ...finding, periodId }),
          expected: finding.revision,
          after: null,
        })),
      });
    });
  }

  /** What says which findings of a period are waived; for one that is not, null. */
  async ofPeriod(queries: Queries, periodId: number): Promise<(finding: Finding) => WaiverReply | null> {
    const waivedOf = await this.withRevisions(queries, periodId);
    return (finding) => waivedOf(finding).waiver;
  }

  /** The same, with what a change of it begins from. */
  async withRevisions(queries: Queries, periodId: number): Promise<(finding: Finding) => WaivedReply> {
    const waivers = await this.waivers.ofPeriod(queries, periodId);
    const today = await this.zone.today(queries);
    return (finding) => {
      const waiver = waivers.get(periodFindingId({ ...finding, periodId }));
      if (!waiver) return { waiver: null, waiverRevision: revisionOf(null) };
      const { by: _by, ...value } = waiver;
      return { waiver: replyOf(waiver, finding, today), waiverRevision: revisionOf(value) };
    };
  }
}

type WaivedReply = Pick<FindingReply, 'waiver' | 'waiverRevision'>;

function replyOf({ by, waivedAt, reason, until, ...rest }: NamedWaiver, finding: Finding, today: Day): WaiverReply {
  return { by, at: waivedAt, reason, until, state: waiverState({ until, ...rest }, finding, today) };
}

function inWords(findings: readonly Finding[]): string {
  const [first] = findings;
  const isAlike = findings.every(({ ruleId }) => ruleId === first!.ruleId);
  const summary = isAlike ? ` (${ruleById.get(first!.ruleId)?.summary ?? first!.ruleId})` : '';
  return counted(findings.length, 'finding') + summary;
}
