import { Injectable } from '@nestjs/common';
import { checkScale, orderBands, type Band, type ScaleFault } from '#core/scales';
import { bodyOfBand, scaleFaultSentence } from '#contract/scales';
import { CodesRepository } from '#server/codes';
import type { SchoolPeriod } from '#server/calendar';
import { revisionOf, type Edit } from '#server/changes';
import { ScaleVersionsRepository } from '#server/period-view';
import { precisionOf } from '#server/report-items';
import { Clock, Refusal, type Actor, type FieldFault, type Queries } from '#server/platform';
import { followingVersions, type NextVersion } from './following-versions.js';
import { ScaleRecords } from './scale-records.repository.js';
import { ScaleUseService, usualPrecision } from './scale-use.service.js';
import { valueOfScale, type ScaleValue } from './scale-value.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';

/** Says as edits what the next version of a scale is, and those of the scales that follow it. */
@Injectable()
export class NextVersions {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly records: ScaleRecords,
    private readonly versions: ScaleVersionsRepository,
    private readonly uses: ScaleUseService,
    private readonly clock: Clock,
    private readonly specialCodes: CodesRepository,
  ) {}

  /**
   * The next version of a scale, which may be a new one, and those of the scales that are tied to it: all, or where one of them
   * would not hold, none.
   * @throws Refusal scale-faulty
   */
  async editsOf(
    queries: Queries,
    actor: Actor,
    scale: ScaleRow,
    period: SchoolPeriod,
    bands: readonly Band[],
  ): Promise<Edit[]> {
    const versions = await this.versions.all(queries);
    const scales = [...(await this.scales.all(queries)).filter(({ id }) => id !== scale.id), scale];
    const asked = { scaleId: scale.id, fromPeriodId: period.id, fromDay: period.startsOn, bands };
    const next = followingVersions(scales, versions, asked);
    await this.refuseFaulty(queries, scales, period, next);
    const values = await this.records.values(
      queries,
      next.map(({ scaleId }) => scaleId),
    );
    const after = new Map<number, ScaleValue>();
    for (const { scaleId, fromPeriodId, bands: own } of next) {
      const kept = after.get(scaleId)?.versions ?? values.get(String(scaleId))?.versions ?? [];
      const version = {
        number: (kept.at(-1)?.number ?? 0) + 1,
        fromPeriodId,
        savedBy: actor.personId,
        savedAt: this.clock.now().toISOString(),
        bands: orderBands(own).map(bodyOfBand),
      };
      after.set(
        scaleId,
        valueOfScale(
          scales.find(({ id }) => id === scaleId)!,
          [...kept, version],
        ),
      );
    }
    return [...after].map(([scaleId, value]) => ({
      kind: 'scale',
      id: String(scaleId),
      expected: revisionOf(values.get(String(scaleId)) ?? null),
      after: value,
    }));
  }

  /** Of the version asked for the bands are marked; of one that follows it the sentence names the scale. */
  private async refuseFaulty(
    queries: Queries,
    scales: readonly ScaleRow[],
    period: SchoolPeriod,
    next: readonly NextVersion[],
  ): Promise<void> {
    const codes = (await this.specialCodes.all(queries)).map(({ code }) => code);
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
}

function fieldFault(fault: ScaleFault): FieldFault {
  const column = fault.code.startsWith('label-') ? 'label' : 'lowest';
  const field = fault.index === null ? 'bands' : `bands.${fault.index}.${column}`;
  return { field, detail: scaleFaultSentence(fault) };
}
