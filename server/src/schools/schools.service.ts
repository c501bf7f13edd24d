import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { isYearLong, proposeYear, yearLength } from '#core/calendar';
import type { OpenedSchoolReply, OpenSchoolRequest } from '#contract/schools';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import type { DistrictValue } from './district.thing.js';

/** Schools that are made by hand. */
@Injectable()
export class SchoolsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly changes: Changes,
  ) {}

  /** Makes a school with its first year, and names the district where that is asked for: all of it, or nothing. */
  async open(actor: Actor, request: OpenSchoolRequest): Promise<OpenedSchoolReply> {
    return this.transactions.run(async (queries) => {
      await this.refuseUnfit(queries, request);
      const { district, code, name, shortName, year } = request;
      const [schoolId] = await nextIds(queries, 'schools', 1);
      const proposed = proposeYear(year.division, year.name, year.startsOn, year.endsOn);
      const given = await nextIds(queries, 'periods', proposed.length);
      const ids = new Map(proposed.map(({ id }, at) => [id, given[at]!]));
      const periods = proposed.map((period) => ({
        ...period,
        id: ids.get(period.id)!,
        parentId: period.parentId === null ? null : ids.get(period.parentId)!,
      }));
      const calendar = { weekdays: [1, 2, 3, 4, 5], periods, breaks: [], windows: [] };
      const edits: Edit[] = [
        ...(district ? [await this.districtEdit(queries, { ...district })] : []),
        { kind: 'school', id: String(schoolId), after: { code, name, shortName } },
        { kind: 'calendar', id: String(schoolId), after: calendar },
      ];
      await this.changes.make(queries, actor, { action: `open ${shortName}`, edits });
      const first = periods.find(({ id }) => !periods.some(({ parentId }) => parentId === id))!;
      return { schoolId: schoolId!, periodId: first.id };
    });
  }

  /** Upon the district as it stands: whoever opens a first school has seen none. */
  private async districtEdit(queries: Queries, after: DistrictValue): Promise<Edit> {
    const before = await this.changes.valueOf<DistrictValue>(queries, 'district', 'district');
    return { kind: 'district', id: 'district', expected: revisionOf(before), after };
  }

  private async refuseUnfit(queries: Queries, { district, code, year }: OpenSchoolRequest): Promise<void> {
    const faults: FieldFault[] = [];
    const { rows } = await queries.execute<{ code: string }>(sql`SELECT lower(code) AS code FROM schools`);
    if (district && rows.length > 0)
      faults.push({ field: 'district', detail: 'nothing: the district has its name already' });
    if (rows.some((school) => school.code === code.toLowerCase()))
      faults.push({ field: 'code', detail: 'a code that no other school has' });
    if (!isYearLong(year.startsOn, year.endsOn))
      faults.push({
        field: 'year.endsOn',
        detail: `a day from ${yearLength.fewest} to ${yearLength.most} days after the first`,
      });
    if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
  }
}
