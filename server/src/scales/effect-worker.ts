import 'reflect-metadata';
import { decimalOrThrow, formatDecimal, roundings, type RoundingName } from '#core/numbers';
import { effectOfScales } from '#core/period-view';
import type { Band } from '#core/scales';
import type { ScaleEffectReply } from '#contract/scales';
import { gpaPolicyOfBody, type GpaPolicyBody } from '#contract/transcripts';
import { readGradeText } from './read-grade-text.js';

/** An item of a section: under which versions its grades are looked at now and then, and what they weigh in a GPA. */
export interface EffectUse {
  readonly item: number;
  readonly section: number;
  readonly course: number;
  /** Numbers of versions; 0 where no scale is in use. */
  readonly before: number;
  readonly after: number;
  /** Place in the list of precisions. */
  readonly precision: number;
  /** In ten-thousandths. */
  readonly credits: number;
  /** In hundredths. */
  readonly addition: number;
  readonly counts: 0 | 1;
}

/** What the worker is given: the grades as PostgreSQL's text format has them, and all that they are looked at under. */
export interface EffectTask {
  /** Student, item, section, percent, label, points of a code, computed percentage, version posted under; \N for null. */
  readonly rows: Uint8Array;
  readonly uses: readonly EffectUse[];
  readonly precisions: readonly { readonly digits: number; readonly rounding: RoundingName }[];
  /** By number, drafts among them. */
  readonly versions: ReadonlyMap<number, readonly Band[]>;
  readonly gpa: GpaPolicyBody;
  /** By course. */
  readonly mostCredits: ReadonlyMap<number, string>;
}

export interface EffectResult extends Omit<ScaleEffectReply, 'students' | 'milliseconds' | 'bands'> {
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

/** Runs in a worker thread: reads the grades into columns and works out what other bands would do to them. */
export default function effectOfRows(task: EffectTask): EffectResult {
  const { columns, studentIds, itemIds, sectionIds, changes: read } = readGradeText(task);
  const bandsOf = (version: number) => task.versions.get(version) ?? [];
  const looks = read.map(({ postedUnder, before, after, precision }) => ({
    postedUnder: bandsOf(postedUnder),
    before: bandsOf(before),
    after: bandsOf(after),
    precision: {
      digits: task.precisions[precision]!.digits,
      rounding: roundings[task.precisions[precision]!.rounding],
    },
    isConcerned: before !== after,
  }));
  const mostCredits = new Map([...task.mostCredits].map(([course, credits]) => [course, decimalOrThrow(credits)]));
  const effect = effectOfScales(columns, looks, { ...gpaPolicyOfBody(task.gpa), mostCredits });
  const changes = new Map<number, EffectResult['students'][number]['changes'][number][]>();
  for (const { row, from, to } of effect.changedRows) {
    const student = columns.student[row]!;
    const hundredths = columns.percent[row]!;
    const percent = hundredths < 0 ? null : formatDecimal({ units: BigInt(hundredths), digits: 2 });
    const change = { itemId: itemIds[row]!, sectionId: sectionIds[row]!, percent, from, to };
    const own = changes.get(student);
    if (own) own.push(change);
    else changes.set(student, [change]);
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
