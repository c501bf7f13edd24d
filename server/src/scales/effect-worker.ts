import { formatDecimal, roundings, type RoundingName } from '#core/numbers';
import { effectOfDraft, type Band } from '#core/scales';
import type { ScaleEffectReply } from '#contract/scales';
import { readGradeText } from './read-grade-text.js';

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
  const { columns, studentIds, itemIds, sectionIds } = readGradeText(task);
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
