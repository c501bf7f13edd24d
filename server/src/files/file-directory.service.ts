import { Injectable } from '@nestjs/common';
import { inArray, sql } from 'drizzle-orm';
import { IntegerColumns, type Decimal } from '#core/numbers';
import { readCopyLines } from '#core/formats';
import { foldKey, sectionsByName, type Directory, type Roster } from '#core/files';
import { CodesRepository } from '#server/codes';
import type { SchoolPeriod } from '#server/calendar';
import { intArray, CopyReader, personName, tables, type Queries } from '#server/platform';
import { enrolledInText, PeriodViews, type ReportedItem } from '#server/period-view';

const { people, rosterFields, sections, sourcedIds } = tables;

/** A percentage of ten digits does not fit a whole number of 32 bits: its first five digits and its last five do. */
const half = 100_000;
/** Rows that the database gives in one answer. */
const rowsAtOnce = 25_000;

/** What a file of a period may be about: report items, sections, people. */
@Injectable()
export class FileDirectoryService {
  constructor(
    private readonly views: PeriodViews,
    private readonly copies: CopyReader,
    private readonly specialCodes: CodesRepository,
  ) {}

  /** The items of a period that a file can bring: those whose value is not put together from others. */
  async items(queries: Queries, period: SchoolPeriod): Promise<ReportedItem[]> {
    return (await this.views.of(queries, period)).reported.filter(({ item }) => item.source !== 'composite');
  }

  /** Sections by all names that they have, and by those that somebody gave them. */
  async sectionNames(
    queries: Queries,
    items: readonly ReportedItem[],
    given: Readonly<Record<string, number>>,
  ): Promise<ReadonlyMap<string, number>> {
    const all = new Map(items.flatMap((each) => each.sections.map((section) => [section.id, section])));
    const rows = await queries
      .select({
        id: sections.id,
        number: sections.number,
        sourcedId: sourcedIds.sourcedId,
        fields: rosterFields.fields,
      })
      .from(sections)
      .leftJoin(sourcedIds, sql`${sourcedIds.kind} = 'section' AND ${sourcedIds.ourId} = ${sections.id}`)
      .leftJoin(rosterFields, sql`${rosterFields.file} = 'classes' AND ${rosterFields.key} = ${sourcedIds.sourcedId}`);
    const named = rows.flatMap(({ id, number, sourcedId, fields }) => {
      const course = all.get(id)?.course;
      if (!course) return [];
      const { title = '', classCode = '' } = fields?.said ?? {};
      const rosterNames = [title, classCode].filter((name) => name !== '');
      return [{ id, number, sourcedId, rosterNames, courseCode: course.code, courseTitle: course.title }];
    });
    const byHand = Object.entries(given).filter(([, id]) => all.has(id));
    return new Map([...sectionsByName(named), ...byHand.map(([name, id]) => [foldKey(name), id] as const)]);
  }

  /**
   * Every student of the district by number, by id and by an address that is theirs alone. Not inside a transaction: it reads
   * what is committed.
   */
  async students(): Promise<ReadonlyMap<string, number>> {
    const [numbers, addresses] = [new StudentKeys(), new StudentKeys()];
    for (let last = 0, isMore = true; isMore;) {
      const text = await this.copies.read(
        `SELECT id, sourced_id, number, email FROM people WHERE kind = 'student' AND id > ${last} ORDER BY id LIMIT ${rowsAtOnce}`,
      );
      const page = readCopyLines(text.toString());
      for (const [id, sourcedId, number, email] of page) {
        for (const key of [sourcedId, number]) if (key) numbers.add(foldKey(key), Number(id));
        if (email) addresses.add(foldKey(email), Number(id));
      }
      last = Number(page.at(-1)?.[0]);
      isMore = page.length === rowsAtOnce;
    }
    // Numbers whose zeros a spreadsheet took away, as far as they are nobody else's.
    const short = new StudentKeys();
    for (const [key, id] of numbers.all()) short.add(/^0+(\d+)$/.exec(key)?.[1], id);
    const students = new Map(numbers.clear());
    for (const [key, id] of [...addresses.clear(), ...short.clear()]) if (!numbers.has(key)) students.set(key, id);
    return students;
  }

  /** Family name first, in the order of the alphabet. */
  async studentNames(queries: Queries, ids: readonly number[]): Promise<string[]> {
    if (ids.length === 0) return [];
    const rows = await queries
      .select({ name: personName })
      .from(people)
      .where(inArray(people.id, [...ids]));
    return rows.map(({ name }) => name).toSorted();
  }

  /** How many of some students are in each of some sections, the most first. */
  async membership(
    queries: Queries,
    studentIds: readonly number[],
    sectionIds: readonly number[],
  ): Promise<{ sectionId: number; known: number }[]> {
    const { rows } = await queries.execute<{ sectionId: number; known: number }>(sql`
      SELECT section_id AS "sectionId", count(*)::int AS known FROM enrollments
      WHERE student_id = ANY(${intArray(studentIds)}) AND section_id = ANY(${intArray(sectionIds)})
      GROUP BY section_id ORDER BY 2 DESC, 1`);
    return rows;
  }

  async directory(
    queries: Queries,
    period: SchoolPeriod,
    items: readonly ReportedItem[],
    sectionIds: readonly number[],
    names: ReadonlyMap<string, number>,
  ): Promise<Directory> {
    const labels = [
      ...(await this.specialCodes.allLabels(queries)),
      ...(await this.specialCodes.all(queries)).map(({ code }) => code),
    ];
    return {
      roster: await this.roster(
        period,
        items.map(({ item }) => item.id),
        sectionIds,
      ),
      students: await this.students(),
      sections: names,
      reportedIn: new Map(items.map((each) => [each.item.id, new Set(each.sections.map(({ id }) => id))])),
      labels: new Set(labels.map(foldKey)),
      highestLevels: highestLevelsOf(items),
    };
  }

  /** Not inside a transaction: it reads what is committed. */
  private async roster(
    period: SchoolPeriod,
    itemIds: readonly number[],
    sectionIds: readonly number[],
  ): Promise<Roster> {
    const said = itemIds.map((itemId, at) => ({
      columns: `coalesce(trunc(c${at}.percent * ${half})::int, -1), coalesce((c${at}.percent * ${half} % 1 * ${half})::int, 0)`,
      join: `LEFT JOIN file_percents c${at} ON c${at}.enrollment_id = e.id AND c${at}.item_id = ${itemId} AND c${at}.period_id = ${period.id}`,
    }));
    const columns = new IntegerColumns(4 + 2 * itemIds.length);
    for (let last = [0, 0], isMore = true; isMore;) {
      const before = columns.rows;
      columns.take(
        await this.copies.read(`
          SELECT ${['e.student_id', 'e.section_id', 'e.id', `coalesce(e.withdrawn_on <= '${period.endsOn}', false)::int`, ...said.map(({ columns: each }) => each)].join(', ')}
          FROM enrollments e ${said.map(({ join }) => join).join(' ')}
          WHERE e.section_id = ANY('{${sectionIds.join(',')}}'::int[]) AND ${enrolledInText(period)}
            AND e.student_id >= ${last[0]} AND (e.student_id, e.section_id) > (${last.join(', ')})
          ORDER BY e.student_id, e.section_id LIMIT ${rowsAtOnce}`),
      );
      last = columns.lastRow().slice(0, 2);
      isMore = columns.rows - before === rowsAtOnce;
    }
    const [studentIds, enrolledIn, enrollmentIds, hasLeft, ...percents] = columns.read();
    return {
      studentIds: studentIds!,
      sectionIds: enrolledIn!,
      enrollmentIds: enrollmentIds!,
      hasLeft: hasLeft!,
      computed: new Map(itemIds.map((itemId, at) => [itemId, stepsOfHalves(percents[2 * at]!, percents[2 * at + 1]!)])),
    };
  }
}

/** The items all of whose sections take levels. */
function highestLevelsOf(items: readonly ReportedItem[]): ReadonlyMap<number, Decimal> {
  return new Map(
    items.flatMap(({ item, scales }) => {
      const levels = [...scales.values()].map(({ version }) => version.highestLevel);
      const [first] = levels;
      return first && levels.every((level) => level !== null) ? [[item.id, first] as const] : [];
    }),
  );
}

function stepsOfHalves(first: Int32Array, last: Int32Array): Float64Array {
  const steps = new Float64Array(first.length);
  first.forEach((value, at) => (steps[at] = value === -1 ? -1 : value * half + last[at]!));
  return steps;
}

/** Students by what they may be called; what two of them share says neither. */
class StudentKeys {
  private readonly ids = new Map<string, number | null>();

  add(key: string | undefined, id: number | null): void {
    if (key === undefined) return;
    const known = this.ids.get(key);
    this.ids.set(key, known === undefined || known === id ? id : null);
  }

  has(key: string): boolean {
    return this.ids.has(key);
  }

  /** Null for a key that says nobody. */
  all(): ReadonlyMap<string, number | null> {
    return this.ids;
  }

  *clear(): Generator<[string, number]> {
    for (const [key, id] of this.ids) if (id !== null) yield [key, id];
  }
}
