import { Injectable } from '@nestjs/common';
import { and, asc, desc, eq, inArray, lte, sql } from 'drizzle-orm';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { orderBands, type Band } from '#core/scales';
import type { SchoolPeriod } from '#server/calendar';
import { Refusal, tables, type Queries } from '#server/platform';

export interface ScaleVersion {
  readonly id: number;
  readonly scaleId: number;
  readonly scaleName: string;
  readonly number: number;
  readonly fromPeriodId: number;
  /** From the highest cut-off down. */
  readonly bands: readonly Band[];
}

const { bands, periods, people, scales, scaleVersions } = tables;

@Injectable()
export class ScalesRepository {
  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number) {
    const [scale] = await queries.select().from(scales).where(eq(scales.id, id));
    if (!scale) throw new Refusal('not-found', { what: 'scale', id });
    return scale;
  }

  /** The version in force in a period: the newest of those that began no later than it. */
  async inForceOrThrow(queries: Queries, scaleId: number, period: SchoolPeriod): Promise<ScaleVersion> {
    const [version] = await queries
      .select({ id: scaleVersions.id })
      .from(scaleVersions)
      .innerJoin(periods, eq(periods.id, scaleVersions.fromPeriodId))
      .where(and(eq(scaleVersions.scaleId, scaleId), lte(periods.startsOn, period.startsOn)))
      .orderBy(desc(scaleVersions.number))
      .limit(1);
    if (!version) throw new Error(`scale ${scaleId} has no version for period ${period.id}`);
    return (await this.versions(queries, [version.id])).get(version.id)!;
  }

  /** Versions with their bands, by id. */
  async versions(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, ScaleVersion>> {
    if (ids.length === 0) return new Map();
    const rows = await queries
      .select({ version: scaleVersions, scaleName: scales.name })
      .from(scaleVersions)
      .innerJoin(scales, eq(scales.id, scaleVersions.scaleId))
      .where(inArray(scaleVersions.id, [...ids]));
    const bandRows = await queries
      .select()
      .from(bands)
      .where(inArray(bands.versionId, [...ids]));
    return new Map(
      rows.map(({ version: { id, scaleId, number, fromPeriodId }, scaleName }) => {
        const own = bandRows.filter(({ versionId }) => versionId === id).map(bandOfRow);
        return [id, { id, scaleId, scaleName, number, fromPeriodId, bands: orderBands(own) }];
      }),
    );
  }

  /** Every version, newest first, with who saved it and the period it is in force from. */
  history(queries: Queries, scaleId: number) {
    return queries
      .select({
        number: scaleVersions.number,
        fromPeriod: periods.name,
        savedAt: scaleVersions.createdAt,
        savedBy: sql<string | null>`${people.givenName} || ' ' || ${people.familyName}`,
      })
      .from(scaleVersions)
      .innerJoin(periods, eq(periods.id, scaleVersions.fromPeriodId))
      .leftJoin(people, eq(people.id, scaleVersions.savedBy))
      .where(eq(scaleVersions.scaleId, scaleId))
      .orderBy(desc(scaleVersions.number));
  }

  /** Holds the scale against a second save until the transaction ends, and tells its newest version's number. */
  async latestNumberLocked(queries: Queries, scaleId: number): Promise<number> {
    await queries.execute(sql`SELECT id FROM scales WHERE id = ${scaleId} FOR UPDATE`);
    const [latest] = await queries
      .select({ number: scaleVersions.number })
      .from(scaleVersions)
      .where(eq(scaleVersions.scaleId, scaleId))
      .orderBy(desc(scaleVersions.number))
      .limit(1);
    return latest?.number ?? 0;
  }

  async addVersion(
    queries: Queries,
    version: { scaleId: number; number: number; fromPeriodId: number; savedBy: number; createdAt: Date },
    newBands: readonly Band[],
  ): Promise<void> {
    const [saved] = await queries.insert(scaleVersions).values(version).returning({ id: scaleVersions.id });
    await queries.insert(bands).values(
      newBands.map(({ lowest, points, ...band }) => ({
        ...band,
        versionId: saved!.id,
        lowest: formatDecimal(lowest),
        points: points && formatDecimal(points),
      })),
    );
  }

  async codes(queries: Queries) {
    const { specialCodes } = tables;
    const rows = await queries.select().from(specialCodes).orderBy(asc(specialCodes.position));
    return rows.map(({ createdAt: _createdAt, position: _position, ...code }) => code);
  }
}

function bandOfRow({ label, lowest, points, passes, earnsCredit, descriptor }: typeof bands.$inferSelect): Band {
  return {
    label,
    lowest: decimalOrThrow(lowest),
    points: points === null ? null : decimalOrThrow(points),
    passes,
    earnsCredit,
    descriptor,
  };
}
