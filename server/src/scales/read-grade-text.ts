import { fromDecimal, roundings, roundTo, unitsAt } from '#core/numbers';
import { gradeColumns, type GradeColumns } from '#core/period-view';
import type { EffectTask, EffectUse } from './effect-worker.js';

/** The grades as columns, and by row the item and section each belongs to. */
export interface ReadGrades {
  readonly columns: GradeColumns;
  /** By a student's place in the columns. */
  readonly studentIds: readonly number[];
  readonly itemIds: Int32Array;
  readonly sectionIds: Int32Array;
  /** By the number of a change in the columns: which version is looked at now, which then, and how values are rounded. */
  readonly changes: readonly ReadChange[];
}

export interface ReadChange extends Pick<EffectUse, 'before' | 'after' | 'precision'> {
  readonly postedUnder: number;
}

/**
 * Fills columns from PostgreSQL's text format, byte by byte: making a text of each of a million fields would take longer
 * than reading them. Students get places in the order in which they come.
 */
export function readGradeText({ rows, uses, precisions }: EffectTask): ReadGrades {
  const fields = new GradeFields(rows);
  const length = fields.countLines();
  const columns = gradeColumns(length, fields.labels);
  const [itemIds, sectionIds] = [new Int32Array(length), new Int32Array(length)];
  const byItem = usesByItem(uses);
  const rounded = precisions.map((precision) => new RoundedThousandths(precision));
  const changes = new ChangeList();
  const studentPlaces = new Map<number, number>();
  const studentIds: number[] = [];
  for (let row = 0; row < length; row++) {
    const studentId = fields.number();
    let student = studentPlaces.get(studentId);
    if (student === undefined) studentPlaces.set(studentId, (student = studentIds.push(studentId) - 1));
    const item = fields.number();
    const section = fields.number();
    const found = byItem.get(item)!.get(section)!;
    const { use } = found;
    const precision = rounded[use.precision]!;
    const posted = fields.percent(precision);
    columns.label[row] = fields.label();
    columns.codePoints[row] = fields.number();
    const computed = fields.percent(precision);
    columns.student[row] = student;
    columns.percent[row] = posted < 0 ? computed : posted;
    columns.change[row] = changes.placeOf(found, fields.number());
    columns.credits[row] = use.credits;
    columns.addition[row] = use.addition;
    columns.counts[row] = use.counts;
    columns.course[row] = use.course;
    columns.attempt[row] = section;
    itemIds[row] = item;
    sectionIds[row] = section;
  }
  return { columns, studentIds, itemIds, sectionIds, changes: changes.all };
}

const [tab, lineBreak, backslash, point, nought, nullLetter] = [9, 10, 92, 46, 48, 78];

/** The fields of the text one after the other. Each reading keeps its place in a variable of its own: that is what makes it quick. */
class GradeFields {
  /** Each label once, by the number that stands for it. */
  readonly labels: string[] = [];
  private readonly labelPlaces = new Map<number, number>();
  private at = 0;

  constructor(private readonly rows: Uint8Array) {}

  countLines(): number {
    let lines = 0;
    for (let at = this.rows.indexOf(lineBreak); at !== -1; at = this.rows.indexOf(lineBreak, at + 1)) lines++;
    return lines;
  }

  /** The whole number of the field; -1 for none. */
  number(): number {
    const { rows } = this;
    let at = this.at;
    let value = 0;
    if (rows[at] === backslash) [value, at] = [-1, at + 2];
    else for (; rows[at]! >= nought; at++) value = value * 10 + rows[at]! - nought;
    this.at = at + 1;
    return value;
  }

  /** A percent in hundredths, -1 for none. More digits than two are rounded as the item says, once. */
  percent(rounded: RoundedThousandths): number {
    const { rows } = this;
    let at = this.at;
    if (rows[at] === backslash) {
      this.at = at + 3;
      return -1;
    }
    let value = 0;
    let decimals = -1;
    let isCut = false;
    for (; rows[at] !== tab && rows[at] !== lineBreak; at++) {
      if (rows[at] === point) decimals = 0;
      else if (decimals < 3) {
        value = value * 10 + rows[at]! - nought;
        if (decimals >= 0) decimals++;
      } else isCut ||= rows[at] !== nought;
    }
    this.at = at + 1;
    if (decimals < 3) return decimals === 1 ? value * 10 : decimals === 2 ? value : value * 100;
    // As roundSticky does: what is rounded once more comes out as if it had been rounded once.
    return rounded.of(isCut && value % 5 === 0 ? value + 1 : value);
  }

  /** The number of the field's label, -1 for none. Up to six bytes are a number themselves, which is found sooner than a text. */
  label(): number {
    const { rows } = this;
    const from = this.at;
    let at = from;
    let key = 0;
    for (; rows[at] !== tab && rows[at] !== lineBreak; at++) key = key * 256 + rows[at]!;
    this.at = at + 1;
    if (rows[from] === backslash && rows[from + 1] === nullLetter) return -1;
    if (at - from > 6) return this.placeOf(from, at);
    const known = this.labelPlaces.get(key);
    if (known !== undefined) return known;
    const place = this.placeOf(from, at);
    this.labelPlaces.set(key, place);
    return place;
  }

  private placeOf(from: number, to: number): number {
    const { buffer, byteOffset } = this.rows;
    const text = Buffer.from(buffer, byteOffset + from, to - from).toString('utf8');
    const known = this.labels.indexOf(text);
    return known === -1 ? this.labels.push(text) - 1 : known;
  }
}

/** Thousandths of a percent in hundredths, rounded as an item says; each is worked out once. */
class RoundedThousandths {
  private readonly known = new Map<number, number>();

  constructor(private readonly precision: EffectTask['precisions'][number]) {}

  of(thousandths: number): number {
    const known = this.known.get(thousandths);
    if (known !== undefined) return known;
    const { digits, rounding } = this.precision;
    const exact = fromDecimal({ units: BigInt(thousandths), digits: 3 });
    const hundredths = Number(unitsAt(roundTo(exact, digits, roundings[rounding]), 2));
    this.known.set(thousandths, hundredths);
    return hundredths;
  }
}

/** An item of a section, and the places of its changes by the version that a grade was posted under. */
interface FoundUse {
  readonly use: EffectUse;
  readonly places: Map<number, number>;
}

/** By item, then by section: small whole numbers are the quickest of keys. */
function usesByItem(uses: readonly EffectUse[]): ReadonlyMap<number, ReadonlyMap<number, FoundUse>> {
  const found = new Map<number, Map<number, FoundUse>>();
  for (const use of uses) {
    const own = found.get(use.item) ?? new Map<number, FoundUse>();
    found.set(use.item, own.set(use.section, { use, places: new Map() }));
  }
  return found;
}

/** The changes that occur, each once. A use meets few versions, so its own places are looked at before a text is made. */
class ChangeList {
  readonly all: ReadChange[] = [];
  private readonly places = new Map<string, number>();

  placeOf({ use, places }: FoundUse, postedUnder: number): number {
    let place = places.get(postedUnder);
    if (place === undefined)
      places.set(postedUnder, (place = this.add(use, postedUnder > 0 ? postedUnder : use.before)));
    return place;
  }

  private add({ before, after, precision }: EffectUse, postedUnder: number): number {
    const key = `${postedUnder} ${before} ${after} ${precision}`;
    const known = this.places.get(key);
    if (known !== undefined) return known;
    this.places.set(key, this.all.length);
    return this.all.push({ postedUnder, before, after, precision }) - 1;
  }
}
