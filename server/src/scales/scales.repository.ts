import { Injectable } from '@nestjs/common';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { decimalOrThrow, type Decimal } from '#core/numbers';
import type { ScaleKind, Shift } from '#core/scales';
import { versionsInForce } from '#core/period-view';
import type { SchoolPeriod } from '#server/calendar';
import { ScaleVersionsRepository, type ScaleVersion } from '#server/period-view';
import { Refusal, tables, type Queries, spokenName } from '#server/platform';
import type { Uses } from '#contract/messages';

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

const { periods, people, scales, scaleVersions } = tables;

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
        savedBy: sql<string | null>`${spokenName}`,
      })
      .from(scaleVersions)
      .innerJoin(periods, eq(periods.id, scaleVersions.fromPeriodId))
      .leftJoin(people, eq(people.id, scaleVersions.savedBy))
      .where(eq(scaleVersions.scaleId, scaleId))
      .orderBy(desc(scaleVersions.number));
  }

  /** Each version of a scale, with the grades that were posted under it. */
  async versionUses(
    queries: Queries,
    id: number,
  ): Promise<{ readonly number: number; readonly fromPeriodId: number; readonly grades: number }[]> {
    const { rows } = await queries.execute<{ number: number; from: number; grades: number }>(sql`
      SELECT number, from_period_id AS from, (SELECT count(*) FROM grades WHERE scale_version_id = v.id)::int AS grades
      FROM scale_versions v WHERE scale_id = ${id} ORDER BY number`);
    return rows.map(({ from, ...row }) => ({ ...row, fromPeriodId: from }));
  }

  /** Whose scale it is; null for the district's. */
  async schoolOf(queries: Queries, id: number): Promise<number | null> {
    const [row] = await queries.select({ schoolId: scales.schoolId }).from(scales).where(eq(scales.id, id));
    return row?.schoolId ?? null;
  }

  /** What rests on a scale: grades, items, places, scales that follow it. */
  async usesOf(queries: Queries, id: number): Promise<Uses> {
    const { rows } = await queries.execute<{ grades: number; places: number; items: string; followers: string }>(sql`
      SELECT (SELECT count(*) FROM grades WHERE scale_version_id IN
                (SELECT id FROM scale_versions WHERE scale_id = ${id}))::int AS grades,
        (SELECT count(*) FROM scale_placements WHERE scale_id = ${id})::int AS places,
        (SELECT coalesce(string_agg(name, ', '), '') FROM report_items WHERE scale_id = ${id}) AS items,
        (SELECT coalesce(string_agg(name, ', '), '') FROM scales WHERE tied_to_id = ${id}) AS followers`);
    const { grades, places, items, followers } = rows[0]!;
    return {
      counts: { 'posted grade': grades, 'place where it is in force': places },
      named: [items && `the item ${items}`, followers && `the scale that follows it, ${followers}`].filter(Boolean),
    };
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
