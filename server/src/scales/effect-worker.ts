import {
  parseDecimal,
  roundings,
  roundTo,
  fromDecimal,
  unitsAt,
  formatDecimal,
  type RoundingName,
} from '#core/numbers';
import { effectOfDraft, gradeColumns, type Band, type GradeColumns } from '#core/scales';
import type { ScaleEffectReply } from '#contract/scales';

/** What the worker is given: the grades as PostgreSQL's text format has them, and both scales. */
export interface EffectTask {
  /** Student, item, section, percent, label, computed percent; \N for null. */
  readonly rows: Uint8Array;
  readonly saved: readonly Band[];
  readonly draft: readonly Band[];
  readonly digits: number;
  readonly rounding: RoundingName;
  /** For each item of a section its credits in ten-thousandths, the addition in hundredths, and whether it counts. */
  readonly weights: readonly (readonly [
    item: number,
    section: number,
    credits: number,
    addition: number,
    counts: 0 | 1,
  ])[];
  readonly gpa: { readonly digits: number; readonly rounding: RoundingName };
}

export interface EffectResult extends Omit<ScaleEffectReply, 'students' | 'milliseconds'> {
  readonly students: readonly {
    readonly studentId: number;
    readonly changes: readonly {
      readonly itemId: number;
      readonly sectionId: number;
      readonly percent: string | null;
      readonly from: string | null;
      readonly to: string | null;
    }[];
    readonly gpaBefore: string | null;
    readonly gpaAfter: string | null;
  }[];
}

/** Runs in a worker thread: reads the grades into columns and works out what the draft would do to them. */
export default function effectOfRows(task: EffectTask): EffectResult {
  const { columns, studentIds, itemIds, sectionIds } = readColumns(task);
  const precision = { digits: task.digits, rounding: roundings[task.rounding] };
  const policy = { digits: task.gpa.digits, rounding: roundings[task.gpa.rounding] };
  const effect = effectOfDraft(columns, task.saved, task.draft, precision, policy);
  const changes = new Map<number, EffectResult['students'][number]['changes'][number][]>();
  for (const { row, from, to } of effect.changedRows) {
    const student = columns.student[row]!;
    const hundredths = columns.percent[row]!;
    const percent = hundredths < 0 ? null : formatDecimal({ units: BigInt(hundredths), digits: 2 });
    changes.set(student, [
      ...(changes.get(student) ?? []),
      { itemId: itemIds[row]!, sectionId: sectionIds[row]!, percent, from, to },
    ]);
  }
  const gpas = new Map(effect.students.map((each) => [each.student, each]));
  const shown = (value: Parameters<typeof formatDecimal>[0] | null | undefined) =>
    value ? formatDecimal(value) : null;
  const { grades, moves, changed, passAnew, failAnew } = effect;
  return {
    grades,
    moves,
    changed,
    passAnew,
    failAnew,
    meanBefore: shown(effect.meanBefore),
    meanAfter: shown(effect.meanAfter),
    students: [...changes].map(([student, own]) => ({
      studentId: studentIds[student]!,
      changes: own,
      gpaBefore: shown(gpas.get(student)?.gpaBefore),
      gpaAfter: shown(gpas.get(student)?.gpaAfter),
    })),
  };
}

type SixTexts = [string, string, string, string, string, string];

interface ReadColumns {
  readonly columns: GradeColumns;
  readonly studentIds: readonly number[];
  /** By row. */
  readonly itemIds: Int32Array;
  readonly sectionIds: Int32Array;
}

/** Fills the columns from the text: students get places in the order in which they come. */
function readColumns({ rows, weights, digits, rounding }: EffectTask): ReadColumns {
  const lines = Buffer.from(rows.buffer, rows.byteOffset, rows.byteLength).toString('latin1').split('\n');
  const length = lines.length - 1; // the text ends with a line break
  const labels: string[] = [];
  const places = new Map<string, number>();
  const columns = gradeColumns(length, labels);
  const [itemIds, sectionIds] = [new Int32Array(length), new Int32Array(length)];
  const facts = new Map(weights.map(([item, section, ...rest]) => [`${item}\t${section}`, rest]));
  const studentIds: number[] = [];
  const students = new Map<string, number>();
  for (let row = 0; row < length; row++) {
    const [student, item, section, percent, label, computed] = lines[row]!.split('\t') as SixTexts;
    let place = students.get(student);
    if (place === undefined) students.set(student, (place = studentIds.push(Number(student)) - 1));
    const [credits, addition, counts] = facts.get(`${item}\t${section}`)!;
    columns.student[row] = place;
    columns.credits[row] = credits;
    columns.addition[row] = addition;
    columns.counts[row] = counts;
    itemIds[row] = Number(item);
    sectionIds[row] = Number(section);
    columns.percent[row] = hundredthsOf(percent === '\\N' ? computed : percent, digits, rounding);
    if (label === '\\N') columns.label[row] = -1;
    else {
      let at = places.get(label);
      if (at === undefined) places.set(label, (at = labels.push(Buffer.from(label, 'latin1').toString('utf8')) - 1));
      columns.label[row] = at;
    }
  }
  return { columns, studentIds, itemIds, sectionIds };
}

/** A percent in hundredths; one with more digits is rounded as the item says, once, which is what finds its label. */
function hundredthsOf(text: string, digits: number, rounding: RoundingName): number {
  if (text === '\\N') return -1;
  const point = text.indexOf('.');
  if (point === -1) return Number(text) * 100;
  const decimals = text.length - point - 1;
  if (decimals <= 2) return Number(text.slice(0, point)) * 100 + Number(text.slice(point + 1).padEnd(2, '0'));
  const exact = parseDecimal(text)!;
  return Number(unitsAt(roundTo(fromDecimal(exact), digits, roundings[rounding]), 2));
}
