import { Injectable } from '@nestjs/common';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { decimalOrThrow, formatDecimal, type Decimal } from '#core/numbers';
import type { SpecialCode } from '#core/posting';
import type { Band, ScaleKind, Shift } from '#core/scales';
import { versionsInForce } from '#core/period-view';
import type { SchoolPeriod } from '#server/calendar';
import { ScaleVersionsRepository, type ScaleVersion } from '#server/period-view';
import { rowsToRemove, type RemovedRows } from '#server/changes';
import { counted, Refusal, tables, type Queries } from '#server/platform';

/** A scale without its bands. */
export interface ScaleRow {
  readonly id: number;
  readonly schoolId: number | null;
  readonly name: string;
  readonly kind: ScaleKind;
  readonly tie: { readonly toId: number; readonly shift: Shift } | null;
  /** The level at the top of a level scale; null for the others. */
  readonly highestLevel: Decimal | null;
}

const { bands, periods, people, scales, scaleVersions, specialCodes } = tables;

@Injectable()
export class ScalesRepository {
  constructor(private readonly versions: ScaleVersionsRepository) {}

  /** The scales a school can use: its own and the district's. */
  async ofSchool(queries: Queries, schoolId: number): Promise<ScaleRow[]> {
    const rows = await queries
      .select()
      .from(scales)
      .where(sql`${scales.schoolId} = ${schoolId} OR ${scales.schoolId} IS NULL`)
      .orderBy(asc(scales.id));
    return rows.map(scaleOfRow);
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<ScaleRow> {
    const [scale] = await queries.select().from(scales).where(eq(scales.id, id));
    if (!scale) throw new Refusal('not-found', { what: 'scale', id });
    return scaleOfRow(scale);
  }

  /** Those of every school. */
  async all(queries: Queries): Promise<ScaleRow[]> {
    const rows = await queries.select().from(scales).orderBy(asc(scales.id));
    return rows.map(scaleOfRow);
  }

  /** The version that a period uses of a scale that others may be tied to. @throws Refusal fields-wrong */
  async inForceOrThrow(
    queries: Queries,
    schoolId: number,
    scaleId: number,
    period: Pick<SchoolPeriod, 'startsOn'>,
  ): Promise<ScaleVersion> {
    const known = await this.versions.ofSchool(queries, schoolId);
    const version = versionsInForce(known, period).get(scaleId);
    if (!version) throw new Refusal('fields-wrong', {}, [{ field: 'tie.toId', detail: 'a scale of this school' }]);
    return version;
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

  async add(queries: Queries, { schoolId, name, kind, tie, highestLevel }: Omit<ScaleRow, 'id'>): Promise<number> {
    const [added] = await queries
      .insert(scales)
      .values({ schoolId, name, kind, ...tieColumns(tie), highestLevel: highestLevel && formatDecimal(highestLevel) })
      .returning({ id: scales.id });
    return added!.id;
  }

  async changeFacts(queries: Queries, id: number, name: string, tie: ScaleRow['tie']): Promise<void> {
    await queries
      .update(scales)
      .set({ name, ...tieColumns(tie) })
      .where(eq(scales.id, id));
  }

  /** Takes a scale out with its versions, and tells what went. */
  async remove(queries: Queries, id: number): Promise<RemovedRows> {
    const removed = await rowsToRemove(queries, [
      { table: 'scales', where: sql`t.id = ${id}` },
      { table: 'scale_versions', where: sql`t.scale_id = ${id}` },
      { table: 'bands', where: sql`t.version_id IN (SELECT id FROM scale_versions WHERE scale_id = ${id})` },
    ]);
    await queries.execute(sql`
      DELETE FROM bands WHERE version_id IN (SELECT id FROM scale_versions WHERE scale_id = ${id})`);
    await queries.delete(scaleVersions).where(eq(scaleVersions.scaleId, id));
    await queries.delete(scales).where(eq(scales.id, id));
    return removed;
  }

  /** What hangs on a scale: grades, items, places, scales that follow it. Empty when it can go. */
  async usesOf(queries: Queries, id: number): Promise<string> {
    const { rows } = await queries.execute<{ uses: string }>(sql`
      SELECT concat_ws(' and ', ${counted(sql`g.n`, 'posted grade')},
        CASE WHEN i.names IS NOT NULL THEN 'the item ' || i.names END,
        ${counted(sql`p.n`, 'place where it is in force', 'places where it is in force')},
        CASE WHEN f.names IS NOT NULL THEN 'the scale that follows it, ' || f.names END) AS uses
      FROM (SELECT count(*) AS n FROM grades WHERE scale_version_id IN
              (SELECT id FROM scale_versions WHERE scale_id = ${id})) g,
        (SELECT string_agg(name, ', ') AS names FROM report_items WHERE scale_id = ${id}) i,
        (SELECT count(*) AS n FROM scale_placements WHERE scale_id = ${id}) p,
        (SELECT string_agg(name, ', ') AS names FROM scales WHERE tied_to_id = ${id}) f`);
    return rows[0]!.uses;
  }

  async addVersion(
    queries: Queries,
    version: { scaleId: number; number: number; fromPeriodId: number; savedBy: number; createdAt: Date },
    newBands: readonly Band[],
  ): Promise<void> {
    const [saved] = await queries.insert(scaleVersions).values(version).returning({ id: scaleVersions.id });
    await queries.insert(bands).values(
      newBands.map(({ lowest, points, ...band }, index) => ({
        ...band,
        versionId: saved!.id,
        position: index + 1,
        lowest: lowest && formatDecimal(lowest),
        points: points && formatDecimal(points),
      })),
    );
  }

  async replaceCodes(queries: Queries, codes: readonly SpecialCode[]): Promise<void> {
    await queries.delete(specialCodes);
    const rows = codes.map(({ countsAs, ...code }, index) => ({
      ...code,
      countsAs: countsAs && formatDecimal(countsAs),
      position: index + 1,
    }));
    if (rows.length > 0) await queries.insert(specialCodes).values(rows);
  }

  /** Grades posted with each code. */
  async gradesByCode(queries: Queries): Promise<ReadonlyMap<string, number>> {
    const { rows } = await queries.execute<{ code: string; grades: number }>(sql`
      SELECT code, count(*)::int AS grades FROM grades WHERE code IS NOT NULL GROUP BY code`);
    return new Map(rows.map(({ code, grades }) => [code, grades]));
  }

  /** Every label that a scale of the district has in some version. */
  async allLabels(queries: Queries): Promise<string[]> {
    const rows = await queries.selectDistinct({ label: bands.label }).from(bands);
    return rows.map(({ label }) => label);
  }
}

function scaleOfRow({
  id,
  schoolId,
  name,
  kind,
  tiedToId,
  cutOffShift,
  pointsShift,
  highestLevel,
}: typeof scales.$inferSelect): ScaleRow {
  const tie =
    tiedToId === null
      ? null
      : { toId: tiedToId, shift: { cutOffs: decimalOrThrow(cutOffShift!), points: decimalOrThrow(pointsShift!) } };
  return { id, schoolId, name, kind, tie, highestLevel: highestLevel === null ? null : decimalOrThrow(highestLevel) };
}

function tieColumns(tie: ScaleRow['tie']) {
  return {
    tiedToId: tie?.toId ?? null,
    cutOffShift: tie ? formatDecimal(tie.shift.cutOffs) : null,
    pointsShift: tie ? formatDecimal(tie.shift.points) : null,
  };
}
