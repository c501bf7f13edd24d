import { Injectable } from '@nestjs/common';
import { asc, sql } from 'drizzle-orm';
import type { SpecialCode } from '#core/codes';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { tables, type Queries } from '#server/platform';

const { bands, specialCodes } = tables;

@Injectable()
export class CodesRepository {
  /** The district's codes, those switched off among them, in their order. */
  async all(queries: Queries): Promise<SpecialCode[]> {
    const rows = await queries.select().from(specialCodes).orderBy(asc(specialCodes.position));
    return rows.map(({ createdAt: _createdAt, position: _position, countsAs, ...code }) => ({
      ...code,
      countsAs: countsAs === null ? null : decimalOrThrow(countsAs),
    }));
  }

  async replace(queries: Queries, codes: readonly SpecialCode[]): Promise<void> {
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

  /** Every label that a scale of the district has in some version: a code may not read like one. */
  async allLabels(queries: Queries): Promise<string[]> {
    const rows = await queries.selectDistinct({ label: bands.label }).from(bands);
    return rows.map(({ label }) => label);
  }
}
