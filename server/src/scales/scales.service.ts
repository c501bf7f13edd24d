import { Injectable } from '@nestjs/common';
import { canonicalJson } from '#core/changes';
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
import { Changes, revisionOf, type Edit } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { NextVersions } from './next-versions.service.js';
import { ScaleChecks } from './scale-checks.service.js';
import { ScaleRecords } from './scale-records.repository.js';
import { ScaleReplies } from './scale-replies.service.js';
import { valueOfScale } from './scale-value.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';
import { decimalTie, tieBody } from './tie.js';

@Injectable()
export class ScalesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly scales: ScalesRepository,
    private readonly periods: PeriodsRepository,
    private readonly records: ScaleRecords,
    private readonly checks: ScaleChecks,
    private readonly next: NextVersions,
    private readonly replies: ScaleReplies,
    private readonly recalculation: RecalculationService,
    private readonly changes: Changes,
  ) {}

  /** The scales a school can use, with a period's real percents, and where each is in force. */
  async inPeriod(periodId: number): Promise<ScalesReply> {
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    return this.transactions.snapshot((queries) => this.replies.read(queries, periodId));
  }

  /** Saves a draft as the next version, in force from a period on. Grades that are posted keep theirs. */
  async save(actor: Actor, scaleId: number, request: SaveScaleRequest): Promise<ScalesReply> {
    const { basedOnVersion, fromPeriodId, bands: bodies } = request;
    return this.transactions.run(async (queries) => {
      const scale = await this.scales.byIdOrThrow(queries, scaleId);
      await this.refuseTied(queries, scale);
      const period = await this.periods.byIdOrThrow(queries, fromPeriodId);
      const current = (await this.scales.versionUses(queries, scaleId)).at(-1)?.number ?? 0;
      if (current !== basedOnVersion) throw new Refusal('scale-changed', { current, yours: basedOnVersion });
      await this.changes.make(queries, actor, {
        action: `save ${scale.name} from ${period.name} on`,
        edits: await this.next.editsOf(queries, actor, scale, period, bodies.map(bandOfBody)),
      });
      return this.replies.read(queries, fromPeriodId);
    });
  }

  async add(actor: Actor, schoolId: number, request: NewScaleRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, request.fromPeriodId);
      const tie = decimalTie(request.tie);
      const bands = tie
        ? deriveBands((await this.scales.inForceOrThrow(queries, schoolId, tie.toId, period)).bands, tie.shift)
        : request.bands.map(bandOfBody);
      const { name, kind, isDistrictWide } = request;
      const highestLevel = request.highestLevel === null ? null : decimalOrThrow(request.highestLevel);
      const [id] = await nextIds(queries, 'scales', 1);
      const row = { schoolId: isDistrictWide ? null : schoolId, name: name.trim(), kind, tie, highestLevel, id: id! };
      const edits = await this.next.editsOf(queries, actor, row, period, bands);
      await this.changes.make(queries, actor, { action: `add ${row.name}`, edits });
      return this.replies.read(queries, period.id);
    });
  }

  /** Changes a scale's name and what it is tied to. Tied anew, it takes over the other one's bands as its next version. */
  async changeFacts(actor: Actor, id: number, periodId: number, request: ScaleFactsRequest): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.scales.byIdOrThrow(queries, id);
      const value = (await this.records.values(queries, [id])).get(String(id))!;
      if (request.revision !== revisionOf(value))
        throw new Refusal('set-up-changed', { what: `facts of ${before.name}` });
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const tie = decimalTie(request.tie);
      const row: ScaleRow = { ...before, name: request.name.trim(), tie };
      const isTiedAnew = tie !== null && canonicalJson(tieBody(before)) !== canonicalJson(tieBody(row));
      const edits: Edit[] = [
        { kind: 'scale', id: String(id), expected: request.revision, after: valueOfScale(row, value.versions) },
      ];
      if (isTiedAnew) {
        await this.checks.refuseUnfit(queries, new Map([[String(id), valueOfScale(row, value.versions)]]));
        const base = await this.scales.inForceOrThrow(queries, period.schoolId, tie.toId, period);
        edits.splice(
          0,
          1,
          ...(await this.next.editsOf(queries, actor, row, period, deriveBands(base.bands, tie.shift))),
        );
      }
      await this.changes.make(queries, actor, { action: `change ${before.name}`, edits });
      return this.replies.read(queries, periodId);
    });
  }

  async remove(actor: Actor, id: number, periodId: number): Promise<ScalesReply> {
    return this.transactions.run(async (queries) => {
      const { name } = await this.scales.byIdOrThrow(queries, id);
      await this.changes.make(queries, actor, {
        action: `delete ${name}`,
        edits: [{ kind: 'scale', id: String(id), after: null }],
      });
      return this.replies.read(queries, periodId);
    });
  }

  private async refuseTied(queries: Queries, { name, tie }: ScaleRow): Promise<void> {
    if (!tie) return;
    throw new Refusal('scale-tied', { name, other: (await this.scales.byIdOrThrow(queries, tie.toId)).name });
  }
}
