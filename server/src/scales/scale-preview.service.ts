import { Injectable } from '@nestjs/common';
import { periodView } from '#core/period-view';
import { deriveBands, type Band } from '#core/scales';
import {
  bandOfBody,
  placeOf,
  type PlaceScaleRequest,
  type PreviewScaleRequest,
  type PreviewTieRequest,
  type ScaleEffectReply,
} from '#contract/scales';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews, type ScaleVersion, type SchoolFacts } from '#server/period-view';
import { Transactions, type Queries } from '#server/platform';
import { decimalTie } from './tie.js';
import { ScaleEffects } from './scale-effects.js';
import { followingVersions, type NextVersion } from './following-versions.js';
import { ScalesRepository } from './scales.repository.js';

/** How the facts of a school would be. */
type FactsChange = (facts: SchoolFacts) => SchoolFacts;

/**
 * Works out what a draft of a scale, a scale at another place or a tie would do to the grades of a period: the difference of
 * the period as it is looked at now and as it would be then.
 */
@Injectable()
export class ScalePreviewService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly scales: ScalesRepository,
    private readonly effects: ScaleEffects,
    private readonly recalculation: RecalculationService,
  ) {}

  /** Of a draft as the next version, in force from the period on, and of the scales that follow it. */
  async ofDraft(scaleId: number, { periodId, bands }: PreviewScaleRequest): Promise<ScaleEffectReply> {
    return this.compare(periodId, async (queries, period) => {
      const scale = await this.scales.byIdOrThrow(queries, scaleId);
      return this.withBands(queries, period, scale.id, bands.map(bandOfBody));
    });
  }

  /** Of a scale that would follow another one from the period on. */
  async ofTie(scaleId: number, { periodId, tie: body }: PreviewTieRequest): Promise<ScaleEffectReply> {
    const tie = decimalTie(body)!;
    return this.compare(periodId, async (queries, period) => {
      const base = await this.scales.inForceOrThrow(queries, period.schoolId, tie.toId, period);
      return this.withBands(queries, period, scaleId, deriveBands(base.bands, tie.shift));
    });
  }

  /** Of a scale that would be used at a place from the period on, or of a place that would inherit. */
  async ofPlacement(schoolId: number, request: PlaceScaleRequest): Promise<ScaleEffectReply> {
    return this.compare(request.fromPeriodId, (_queries, period) => {
      const placement = {
        ...placeOf(schoolId, request),
        id: Number.MAX_SAFE_INTEGER,
        scaleId: request.scaleId,
        isLocked: request.scaleId !== null && request.isLocked,
        fromPeriodId: period.id,
        fromDay: period.startsOn,
      };
      return (facts) => ({ ...facts, placements: [...facts.placements, placement] });
    });
  }

  private async withBands(
    queries: Queries,
    period: SchoolPeriod,
    scaleId: number,
    bands: readonly Band[],
  ): Promise<FactsChange> {
    const scales = await this.scales.ofSchool(queries, period.schoolId);
    return (facts) => {
      const drafts = followingVersions(scales, facts.versions, {
        scaleId,
        fromPeriodId: period.id,
        fromDay: period.startsOn,
        bands,
      });
      return {
        ...facts,
        versions: [...facts.versions, ...drafts.map((draft, at) => draftVersion(facts, draft, -1 - at))],
      };
    };
  }

  /** All that the preview rests on is read in one snapshot: what somebody saves meanwhile is in all of it or in none. */
  private async compare(
    periodId: number,
    changeOf: (queries: Queries, period: SchoolPeriod) => FactsChange | Promise<FactsChange>,
  ): Promise<ScaleEffectReply> {
    const started = performance.now();
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    const read = await this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const change = await changeOf(queries, period);
      const facts = await this.views.factsOf(queries, period.schoolId);
      const after = periodView(change(facts), period);
      return this.effects.read(queries, period, this.views.viewOf(facts, period), after);
    });
    return { ...(await this.effects.of(read)), milliseconds: Math.round(performance.now() - started) };
  }
}

function draftVersion(
  { versions }: SchoolFacts,
  { scaleId, fromPeriodId, fromDay, bands }: NextVersion,
  id: number,
): ScaleVersion {
  const known = versions.findLast((version) => version.scaleId === scaleId);
  return {
    id,
    scaleId,
    scaleName: known?.scaleName ?? '',
    kind: known?.kind ?? 'percent',
    highestLevel: known?.highestLevel ?? null,
    number: (known?.number ?? 0) + 1,
    fromPeriodId,
    fromDay,
    bands,
  };
}
