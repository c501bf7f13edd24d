import { Injectable } from '@nestjs/common';
import { eq, inArray, sql } from 'drizzle-orm';
import { formatDecimal } from '#core/numbers';
import { bodyOfBand } from '#contract/scales';
import { ScaleVersionsRepository } from '#server/period-view';
import { intArray, tables, type Queries } from '#server/platform';
import { rowOfScale, valueOfScale, type ScaleValue, type VersionValue } from './scale-value.js';
import { ScalesRepository, type ScaleRow } from './scales.repository.js';

const { bands, scales, scaleVersions } = tables;

/** Scales with all their versions, as they are changed and logged. */
@Injectable()
export class ScaleRecords {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly versions: ScaleVersionsRepository,
  ) {}

  async values(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<string, ScaleValue>> {
    const own = (await this.scales.all(queries)).filter(({ id }) => ids.includes(id));
    const saved = await queries
      .select({ id: scaleVersions.id, savedBy: scaleVersions.savedBy, savedAt: scaleVersions.createdAt })
      .from(scaleVersions)
      .where(sql`${scaleVersions.scaleId} = ANY(${intArray(ids)})`);
    const facts = new Map(saved.map(({ id, savedBy, savedAt }) => [id, { savedBy, savedAt: savedAt.toISOString() }]));
    const versions = (await this.versions.all(queries)).filter(({ id }) => facts.has(id));
    return new Map(
      own.map((scale) => [
        String(scale.id),
        valueOfScale(
          scale,
          versions
            .filter(({ scaleId }) => scaleId === scale.id)
            .map(({ id, number, fromPeriodId, bands: own }): VersionValue => ({
              number,
              fromPeriodId,
              ...facts.get(id)!,
              bands: own.map(bodyOfBand),
            })),
        ),
      ]),
    );
  }

  /** Versions that are there stay as they are; new ones are added, and those that are not named go. */
  async put(queries: Queries, id: number, value: ScaleValue): Promise<void> {
    const row = columnsOf(rowOfScale(id, value));
    await queries
      .insert(scales)
      .values({ id, ...row })
      .onConflictDoUpdate({ target: scales.id, set: row });
    const kept = await queries
      .select({ id: scaleVersions.id, number: scaleVersions.number })
      .from(scaleVersions)
      .where(eq(scaleVersions.scaleId, id));
    const numbers = new Set(value.versions.map(({ number }) => number));
    await this.removeVersions(
      queries,
      kept.filter(({ number }) => !numbers.has(number)).map((each) => each.id),
    );
    const known = new Set(kept.map(({ number }) => number));
    for (const version of value.versions) if (!known.has(version.number)) await this.add(queries, id, version);
  }

  async remove(queries: Queries, id: number): Promise<void> {
    const own = await queries.select({ id: scaleVersions.id }).from(scaleVersions).where(eq(scaleVersions.scaleId, id));
    await this.removeVersions(
      queries,
      own.map((each) => each.id),
    );
    await queries.delete(scales).where(eq(scales.id, id));
  }

  private async removeVersions(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await queries.delete(bands).where(inArray(bands.versionId, [...ids]));
    await queries.delete(scaleVersions).where(inArray(scaleVersions.id, [...ids]));
  }

  private async add(queries: Queries, scaleId: number, version: VersionValue): Promise<void> {
    const { number, fromPeriodId, savedBy, savedAt } = version;
    const [saved] = await queries
      .insert(scaleVersions)
      .values({ scaleId, number, fromPeriodId, savedBy, createdAt: new Date(savedAt) })
      .returning({ id: scaleVersions.id });
    await queries
      .insert(bands)
      .values(version.bands.map((band, index) => ({ ...band, versionId: saved!.id, position: index + 1 })));
  }
}

function columnsOf({ schoolId, name, kind, tie, highestLevel }: ScaleRow) {
  return {
    schoolId,
    name,
    kind,
    highestLevel: highestLevel && formatDecimal(highestLevel),
    tiedToId: tie?.toId ?? null,
    cutOffShift: tie ? formatDecimal(tie.shift.cutOffs) : null,
    pointsShift: tie ? formatDecimal(tie.shift.points) : null,
  };
}
