import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { isYearLong, proposeYear, yearLength } from '#core/calendar';
import type { OpenedSchoolReply, OpenSchoolRequest, RenameSchoolRequest, SchoolNamesReply } from '#contract/schools';
import { Changes, revisionOf, type Edit } from '#server/changes';
import {
  DistrictZone,
  nextIds,
  Refusal,
  Transactions,
  type Actor,
  type FieldFault,
  type Queries,
} from '#server/platform';
import type { DistrictValue } from './district.thing.js';
import type { SchoolValue } from './school.thing.js';

const codeTaken: FieldFault = { field: 'code', detail: 'a code that no other school has' };

/** Schools that are made by hand, and what they and the district are called. */
@Injectable()
export class SchoolsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly changes: Changes,
    private readonly zone: DistrictZone,
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
        { kind: 'school', id: String(schoolId), after: { code, name, shortName, takesAttendance: false } },
        { kind: 'calendar', id: String(schoolId), after: calendar },
      ];
      await this.changes.make(queries, actor, { action: `open ${shortName}`, edits });
      const first = periods.find(({ id }) => !periods.some(({ parentId }) => parentId === id))!;
      return { schoolId: schoolId!, periodId: first.id };
    });
  }

  async namesOf(schoolId: number): Promise<SchoolNamesReply> {
    return this.transactions.snapshot((queries) => this.names(queries, schoolId));
  }

  /** Gives a school and the district other names. @throws Refusal set-up-changed, fields-wrong */
  async rename(actor: Actor, schoolId: number, request: RenameSchoolRequest): Promise<SchoolNamesReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.names(queries, schoolId);
      const { revision, district, name, shortName, code } = request;
      if (before.revision !== revision) throw new Refusal('set-up-changed', { what: `names of ${before.shortName}` });
      if (code.toLowerCase() !== before.code.toLowerCase() && (await this.codes(queries)).has(code.toLowerCase()))
        throw new Refusal('fields-wrong', {}, [codeTaken]);
      const school = await this.changes.valueOf<SchoolValue>(queries, 'school', String(schoolId));
      await this.changes.make(queries, actor, {
        action: `rename ${before.shortName}`,
        edits: [
          { kind: 'school', id: String(schoolId), after: { ...school, code, name, shortName } },
          { kind: 'district', id: 'district', after: { ...district } },
        ],
      });
      return this.names(queries, schoolId);
    });
  }

  private async names(queries: Queries, schoolId: number): Promise<SchoolNamesReply> {
    const school = await this.changes.valueOf<SchoolValue>(queries, 'school', String(schoolId));
    if (!school) throw new Refusal('not-found', { what: 'school', id: schoolId });
    const district = await this.changes.valueOf<DistrictValue>(queries, 'district', 'district');
    const timeZone = district?.timeZone ?? (await this.zone.name(queries));
    const { code, name, shortName } = school;
    return {
      code,
      name,
      shortName,
      revision: revisionOf({ school, district }),
      district: { name: district?.name ?? '', timeZone },
    };
  }

  private async codes(queries: Queries): Promise<ReadonlySet<string>> {
    const { rows } = await queries.execute<{ code: string }>(sql`SELECT lower(code) AS code FROM schools`);
    return new Set(rows.map(({ code }) => code));
  }

  /** Upon the district as it stands: whoever opens a first school has seen none. */
  private async districtEdit(queries: Queries, after: DistrictValue): Promise<Edit> {
    const before = await this.changes.valueOf<DistrictValue>(queries, 'district', 'district');
    return { kind: 'district', id: 'district', expected: revisionOf(before), after };
  }

  private async refuseUnfit(queries: Queries, { district, code, year }: OpenSchoolRequest): Promise<void> {
    const faults: FieldFault[] = [];
    const codes = await this.codes(queries);
    if (district && codes.size > 0)
      faults.push({ field: 'district', detail: 'nothing: the district has its name already' });
    if (codes.has(code.toLowerCase())) faults.push(codeTaken);
    if (!isYearLong(year.startsOn, year.endsOn))
      faults.push({
        field: 'year.endsOn',
        detail: `a day from ${yearLength.fewest} to ${yearLength.most} days after the first`,
      });
    if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
  }
}
