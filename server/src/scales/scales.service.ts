import { Injectable } from '@nestjs/common';
import { decimalOrThrow } from '#core/numbers';
import { deriveBands } from '#core/scales';
import {
  bandOfBody,
  type NewScaleRequest,
  type SaveScaleRequest,
  type ScaleFactsRequest,
  type ScalesReply,
} from '#contract/scales';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { bringBackRows, ChangeLog } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ScaleReplies } from './scale-replies.service.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';
import { decimalTie, tieBody } from './tie.js';
import { VersionWriter } from './version-writer.service.js';

@Injectable()
export class ScalesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly scales: ScalesRepository,
    private readonly periods: PeriodsRepository,
    private readonly writer: VersionWriter,
    private readonly replies: ScaleReplies,
    private readonly recalculation: RecalculationService,
    private readonly log: ChangeLog,
  ) {}

  /** The scales a school can use, with a period's real percents, and where each is in force. */
  async inPeriod(periodId: number): Promise<ScalesReply> {
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    return this.replies.read(this.transactions.reading, periodId);
  }

  /** Saves a draft as the next version, in force from a period on. Grades that are posted keep theirs. */
  async save(actor: Actor, scaleId: number, request: SaveScaleRequest): Promise<ScalesReply> {
    const { basedOnVersion, fromPeriodId, bands: bodies } = request;
    return this.transactions.run(async (queries) => {
      const scale = await this.scales.byIdOrThrow(queries, scaleId);
      await this.refuseTied(queries, scale);
      const period = await this.periods.byIdOrThrow(queries, fromPeriodId);
      await this.periods.refuseSealedFrom(queries, period, scale.schoolId);
      const current = await this.scales.latestNumberLocked(queries, scaleId);
      if (current !== basedOnVersion) throw new Refusal('scale-changed', { current, yours: basedOnVersion });
      const bands = bodies.map(bandOfBody);
      await this.writer.add(queries, actor, scale, period, bands);
      return this.replies.read(queries, fromPeriodId);
    });
  }

  async add(actor: Actor, schoolId: number, request: NewScaleRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, request.fromPeriodId);
      await this.refuseName(queries, schoolId, null, request.name);
      const tie = decimalTie(request.tie);
      const bands = tie
        ? deriveBands((await this.scales.inForceOrThrow(queries, schoolId, tie.toId, period)).bands, tie.shift)
        : request.bands.map(bandOfBody);
      const { name, kind, isDistrictWide } = request;
      const highestLevel = request.highestLevel === null ? null : decimalOrThrow(request.highestLevel);
      const row = { schoolId: isDistrictWide ? null : schoolId, name: name.trim(), kind, tie, highestLevel };
      const id = await this.scales.add(queries, row);
      await this.writer.add(queries, actor, { ...row, id }, period, bands);
      return this.replies.read(queries, period.id);
    });
  }

  /** Changes a scale's name and what it is tied to. Tied anew, it takes over the other one's bands as its next version. */
  async changeFacts(actor: Actor, id: number, periodId: number, request: ScaleFactsRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.scales.byIdOrThrow(queries, id);
      const period = await this.periods.byIdOrThrow(queries, periodId);
      await this.refuseName(queries, period.schoolId, id, request.name);
      const tie = decimalTie(request.tie);
      if (tie) await this.refuseTieCycle(queries, before, tie.toId);
      await this.scales.changeFacts(queries, id, request.name.trim(), tie);
      const change = { name: request.name, tie: request.tie };
      await this.log.record(queries, actor, [
        {
          action: 'change scale',
          thing: `scale ${id}`,
          before: { name: before.name, tie: tieBody(before) },
          after: change,
        },
      ]);
      if (tie && JSON.stringify(tieBody(before)) !== JSON.stringify(request.tie)) {
        const base = await this.scales.inForceOrThrow(queries, period.schoolId, tie.toId, period);
        await this.periods.refuseSealedFrom(queries, period, before.schoolId);
        await this.scales.latestNumberLocked(queries, id);
        const bands = deriveBands(base.bands, tie.shift);
        await this.writer.add(queries, actor, { ...before, tie }, period, bands);
      }
      return this.replies.read(queries, periodId);
    });
  }

  async remove(actor: Actor, id: number, periodId: number): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const scale = await this.scales.byIdOrThrow(queries, id);
      const uses = await this.scales.usesOf(queries, id);
      if (uses) {
        const instead = 'Put another scale in force in its places first; a scale that grades were posted under stays.';
        throw new Refusal('in-use', { what: 'The scale', name: scale.name, uses, instead });
      }
      const before = { name: scale.name, kind: scale.kind, rows: await this.scales.remove(queries, id) };
      await this.log.record(queries, actor, [{ action: 'remove scale', thing: `scale ${id}`, before, after: null }]);
      return this.replies.read(queries, periodId);
    });
  }

  /** Undoes the removal of a scale: with its versions, under the number that it had. */
  async restore(actor: Actor, id: number, periodId: number): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      await bringBackRows(queries, `scale ${id}`, 'scale');
      const { name, kind } = await this.scales.byIdOrThrow(queries, id);
      const { schoolId } = await this.periods.byIdOrThrow(queries, periodId);
      await this.refuseName(queries, schoolId, id, name);
      await this.log.record(queries, actor, [
        { action: 'bring back scale', thing: `scale ${id}`, before: null, after: { name, kind } },
      ]);
      return this.replies.read(queries, periodId);
    });
  }

  private async refuseTied(queries: Queries, { name, tie }: ScaleRow): Promise<void> {
    if (!tie) return;
    throw new Refusal('scale-tied', { name, other: (await this.scales.byIdOrThrow(queries, tie.toId)).name });
  }

  private async refuseTieCycle(queries: Queries, scale: ScaleRow, toId: number): Promise<void> {
    const way: number[] = [];
    for (let at: number | null = toId; at !== null && !way.includes(at);) {
      const other: ScaleRow = await this.scales.byIdOrThrow(queries, at);
      if (at === scale.id) {
        const first = await this.scales.byIdOrThrow(queries, toId);
        throw new Refusal('tie-cycle', { name: scale.name, other: first.name });
      }
      way.push(at);
      at = other.tie?.toId ?? null;
    }
  }

  private async refuseName(queries: Queries, schoolId: number, id: number | null, name: string): Promise<void> {
    const folded = name.trim().toLowerCase();
    const others = (await this.scales.ofSchool(queries, schoolId)).filter((scale) => scale.id !== id);
    if (!others.some((scale) => scale.name.toLowerCase() === folded)) return;
    throw new Refusal('fields-wrong', {}, [{ field: 'name', detail: 'a name that no other scale of the school has' }]);
  }
}
