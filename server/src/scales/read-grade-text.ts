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

const [tab, lineBreak, backslash, point, nought] = [9, 10, 92, 46, 48];

/**
 * Fills columns from PostgreSQL's text format, byte by byte: making a text of each of a million fields would take longer
 * than reading them. Students get places in the order in which they come.
 */
export function readGradeText({ rows, uses, precisions }: EffectTask): ReadGrades {
  const length = countLines(rows);
  const labels: string[] = [];
  const columns = gradeColumns(length, labels);
  const [itemIds, sectionIds] = [new Int32Array(length), new Int32Array(length)];
  const byItem = usesByItem(uses);
  const rounded = precisions.map((precision) => new RoundedThousandths(precision));
  const changes = new ChangeList();
  const labelPlaces = new Map<string, number>();
  const studentPlaces = new Map<number, number>();
  const studentIds: number[] = [];
  let at = 0;

  const isNull = () => rows[at] === backslash;
  const endOfField = () => {
    let end = at;
    while (rows[end] !== tab && rows[end] !== lineBreak) end++;
    return end;
  };
  const textUntil = (end: number) => Buffer.from(rows.buffer, rows.byteOffset + at, end - at).toString('utf8');
  /** The whole number of the field, behind which the next one begins; -1 for none. */
  const readNumber = () => {
    if (isNull()) {
      at = endOfField() + 1;
      return -1;
    }
    let value = 0;
    for (; rows[at] !== tab && rows[at] !== lineBreak; at++) value = value * 10 + rows[at]! - nought;
    at++;
    return value;
  };
  /** A percent in hundredths, -1 for none. More digits than two are rounded as the item says, once. */
  const readPercent = (rounded: RoundedThousandths) => {
    if (isNull()) {
      at = endOfField() + 1;
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
    at++;
    if (decimals < 3) return value * 10 ** (2 - Math.max(0, decimals));
    // As roundSticky does: what is rounded once more comes out as if it had been rounded once.
    return rounded.of(isCut && value % 5 === 0 ? value + 1 : value);
  };
  const readLabel = () => {
    const end = endOfField();
    if (isNull()) {
      at = end + 1;
      return -1;
    }
    let text = '';
    for (let place = at; place < end; place++) text += String.fromCharCode(rows[place]!);
    let known = labelPlaces.get(text);
    if (known === undefined) labelPlaces.set(text, (known = labels.push(textUntil(end)) - 1));
    at = end + 1;
    return known;
  };

  for (let row = 0; row < length; row++) {
    const studentId = readNumber();
    let student = studentPlaces.get(studentId);
    if (student === undefined) studentPlaces.set(studentId, (student = studentIds.push(studentId) - 1));
    const [item, section] = [readNumber(), readNumber()];
    const found = byItem.get(item)!.get(section)!;
    const { use } = found;
    const precision = rounded[use.precision]!;
    const [posted, label, code] = [readPercent(precision), readLabel(), readNumber()];
    const [computed, version] = [readPercent(precision), readNumber()];
    columns.student[row] = student;
    columns.percent[row] = posted < 0 ? computed : posted;
    columns.label[row] = label;
    columns.codePoints[row] = code;
    columns.change[row] = changes.placeOf(found, version);
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

function countLines(rows: Uint8Array): number {
  let lines = 0;
  for (let at = rows.indexOf(lineBreak); at !== -1; at = rows.indexOf(lineBreak, at + 1)) lines++;
  return lines;
}
