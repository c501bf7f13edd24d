import { Injectable } from '@nestjs/common';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import { decimalOrThrow, type Decimal } from '#core/numbers';
import type { DatedVersion } from '#core/period-view';
import { orderBands, type Band, type ScaleKind } from '#core/scales';
import { tables, type Queries } from '#server/platform';

/** A version of a scale with its bands. */
export interface ScaleVersion extends DatedVersion {
  readonly id: number;
  readonly scaleName: string;
  readonly kind: ScaleKind;
  /** The level at the top of a level scale; null for the others. */
  readonly highestLevel: Decimal | null;
  readonly fromPeriodId: number;
  /** From the highest cut-off down, those switched off among them. */
  readonly bands: readonly Band[];
}

const { bands, periods, scales, scaleVersions } = tables;

/** Reads what is posted under. */
@Injectable()
export class ScaleVersionsRepository {
  /** Every version of the scales that a school can use, its own and the district's. */
  ofSchool(queries: Queries, schoolId: number): Promise<ScaleVersion[]> {
    return this.where(queries, sql`${scales.schoolId} = ${schoolId} OR ${scales.schoolId} IS NULL`);
  }

  /** Of every scale of the district. */
  all(queries: Queries): Promise<ScaleVersion[]> {
    return this.where(queries, sql`true`);
  }

  /** Versions by id. */
  async byId(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, ScaleVersion>> {
    if (ids.length === 0) return new Map();
    const found = await this.where(queries, inArray(scaleVersions.id, [...ids]));
    return new Map(found.map((version) => [version.id, version]));
  }

  private async where(queries: Queries, condition: ReturnType<typeof inArray>): Promise<ScaleVersion[]> {
    const rows = await queries
      .select({
        version: scaleVersions,
        scaleName: scales.name,
        kind: scales.kind,
        highestLevel: scales.highestLevel,
        fromDay: periods.startsOn,
      })
      .from(scaleVersions)
      .innerJoin(scales, eq(scales.id, scaleVersions.scaleId))
      .innerJoin(periods, eq(periods.id, scaleVersions.fromPeriodId))
      .where(condition)
      .orderBy(asc(scaleVersions.scaleId), asc(scaleVersions.number));
    const ids = rows.map(({ version }) => version.id);
    const bandRows =
      ids.length === 0
        ? []
        : await queries
            .select()
            .from(bands)
            .where(inArray(bands.versionId, ids))
            .orderBy(asc(bands.position), asc(bands.id));
    return rows.map(({ version: { id, scaleId, number, fromPeriodId }, fromDay, highestLevel, ...scale }) => {
      const own = bandRows.filter(({ versionId }) => versionId === id).map(bandOfRow);
      return {
        id,
        scaleId,
        number,
        fromPeriodId,
        ...scale,
        fromDay: dayOrThrow(fromDay),
        highestLevel: highestLevel === null ? null : decimalOrThrow(highestLevel),
        bands: orderBands(own),
      };
    });
  }
}

function bandOfRow(row: typeof bands.$inferSelect): Band {
  const { label, lowest, points, passes, earnsCredit, descriptor, isOff } = row;
  return {
    label,
    lowest: lowest === null ? null : decimalOrThrow(lowest),
    points: points === null ? null : decimalOrThrow(points),
    passes,
    earnsCredit,
    descriptor,
    isOff,
  };
}
