import type { Band } from '#core/scales';

/** A student's value as it is and as it would be, in whole units of one last digit, -1 for none; and which bands label it. */
export interface ComparedGrade {
  readonly was: number;
  readonly will: number;
  readonly old: Band | undefined;
  readonly next: Band | undefined;
}

/** Whose value would change: the position, and the labels it goes from and to. */
export interface ChangedValue {
  readonly student: number;
  readonly from: string | null;
  readonly to: string | null;
}

/** What a change of the set-up does to computed values. */
export interface ValueEffect {
  /** Students with a value before or after. */
  readonly grades: number;
  /** Values that would change; of those how many rise, the others fall or go; and how many change their label. */
  readonly changed: number;
  readonly rise: number;
  readonly fall: number;
  readonly moved: number;
  readonly passAnew: number;
  readonly failAnew: number;
  /** How many grades go from one label to another, those that stay included; null for no label. */
  readonly moves: readonly { readonly from: string | null; readonly to: string | null; readonly grades: number }[];
}

/**
 * Counts what would change. A label may change where the value does not, as the same value may be looked up in other bands.
 * @param compared undefined for whom nothing is reported
 */
export function effectOfValues(compared: Iterable<ComparedGrade | undefined>): {
  readonly effect: ValueEffect;
  readonly changed: readonly ChangedValue[];
} {
  const counts = { grades: 0, changed: 0, rise: 0, fall: 0, moved: 0, passAnew: 0, failAnew: 0 };
  const moves = new Map<string, { from: string | null; to: string | null; grades: number }>();
  const changed: ChangedValue[] = [];
  let student = -1;
  for (const grade of compared) {
    student++;
    if (!grade || (grade.was < 0 && grade.will < 0)) continue;
    const { was, will, old, next } = grade;
    counts.grades++;
    const [from, to] = [old?.label ?? null, next?.label ?? null];
    const move = moves.get(`${from}\t${to}`) ?? { from, to, grades: 0 };
    move.grades++;
    moves.set(`${from}\t${to}`, move);
    if (was === will && from === to) continue;
    counts.changed++;
    if (will > was) counts.rise++;
    else if (will < was) counts.fall++;
    if (from !== to) counts.moved++;
    if (next?.passes && old && !old.passes) counts.passAnew++;
    if (old?.passes && next && !next.passes) counts.failAnew++;
    changed.push({ student, from, to });
  }
  return { effect: { ...counts, moves: [...moves.values()] }, changed };
}
