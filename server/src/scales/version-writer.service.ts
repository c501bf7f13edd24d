import { Injectable } from '@nestjs/common';
import { versionsInForce } from '#core/period-view';
import { checkScale, type Band, type ScaleFault } from '#core/scales';
import { bodyOfBand, scaleFaultSentence } from '#contract/scales';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { ScaleVersionsRepository, type ScaleVersion } from '#server/period-view';
import { precisionOf } from '#server/report-items';
import { Clock, Refusal, type Actor, type FieldFault, type Queries } from '#server/platform';
import { followingVersions, type NextVersion } from './following-versions.js';
import { ScaleUseService, usualPrecision } from './scale-use.service.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';

/** Writes versions of scales: the one that was asked for, and those of the scales that follow it. */
@Injectable()
export class VersionWriter {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly versions: ScaleVersionsRepository,
    private readonly periods: PeriodsRepository,
    private readonly uses: ScaleUseService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /**
   * Adds the next version, and with it those of the scales that are tied to this one, and logs them: all, or where one of
   * them would not hold, none.
   * @throws Refusal scale-faulty
   */
  async add(
    queries: Queries,
    actor: Actor,
    scale: ScaleRow,
    period: SchoolPeriod,
    bands: readonly Band[],
  ): Promise<void> {
    const versions = await this.versions.all(queries);
    const scales = await this.scales.all(queries);
    const asked = { scaleId: scale.id, fromPeriodId: period.id, fromDay: period.startsOn, bands };
    const next = followingVersions(scales, versions, asked);
    await this.refuseFaulty(queries, scales, period, next);
    for (const { scaleId, fromPeriodId, bands: own } of next) {
      const follower = scales.find(({ id }) => id === scaleId)!;
      const from = await this.periods.byIdOrThrow(queries, fromPeriodId);
      await this.write(queries, actor, follower, versionsInForce(versions, from).get(scaleId), from, own);
    }
  }

  /** Of the version asked for the bands are marked; of one that follows it the sentence names the scale. */
  private async refuseFaulty(
    queries: Queries,
    scales: readonly ScaleRow[],
    period: SchoolPeriod,
    next: readonly NextVersion[],
  ): Promise<void> {
    const codes = (await this.versions.codes(queries)).map(({ code }) => code);
    const uses = await this.uses.inPeriod(queries, period);
    for (const [at, { scaleId, bands }] of next.entries()) {
      const { name, kind, highestLevel } = scales.find(({ id }) => id === scaleId)!;
      const precision = precisionOf(uses.get(scaleId)?.[0]?.item ?? usualPrecision);
      const faults = checkScale(bands, precision, { kind, highestLevel, codes });
      const fields = faults
        .filter(({ severity }) => severity === 'blocks')
        .map((fault) =>
          at === 0 ? fieldFault(fault) : { field: 'followers', detail: `${name}: ${scaleFaultSentence(fault)}` },
        );
      if (fields.length > 0) throw new Refusal('scale-faulty', {}, fields);
    }
  }

  private async write(
    queries: Queries,
    actor: Actor,
    scale: ScaleRow,
    before: ScaleVersion | undefined,
    period: SchoolPeriod,
    bands: readonly Band[],
  ): Promise<void> {
    const number = (await this.scales.latestNumberLocked(queries, scale.id)) + 1;
    const version = { scaleId: scale.id, number, fromPeriodId: period.id, savedBy: actor.personId };
    await this.scales.addVersion(queries, { ...version, createdAt: this.clock.now() }, bands);
    const show = (shownNumber: number, shown: readonly Band[]) => ({
      number: shownNumber,
      fromPeriod: period.name,
      bands: shown.map(bodyOfBand),
    });
    await this.log.record(queries, actor, [
      {
        action: 'save scale',
        thing: `scale ${scale.id}`,
        before: before ? show(before.number, before.bands) : null,
        after: { name: scale.name, ...show(number, bands) },
      },
    ]);
  }
}

function fieldFault(fault: ScaleFault): FieldFault {
  const column = fault.code.startsWith('label-') ? 'label' : 'lowest';
  const field = fault.index === null ? 'bands' : `bands.${fault.index}.${column}`;
  return { field, detail: scaleFaultSentence(fault) };
}
