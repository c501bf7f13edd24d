import type { CalculationPolicy, FlagEffect, ScoreFlag } from '#core/calculation';
import { add, divide, formatAtLeast, rational, roundHalfUp, roundTo, zero, type Rational } from '#core/numbers';
import type { BookReply } from '#contract/calculation';
import { counted, listed } from '#contract/messages';
import { bookRows, type BookRow } from '../book/book-view';
import { effectsOfFlag } from '../words';

/** What one choice of a policy does in one section, against the choice beside it. */
export interface OptionEffect {
  readonly students: number;
  readonly raised: number;
  readonly lowered: number;
  /** Students who have no percent because of it. */
  readonly blocked: number;
  /** Points of percent that those it moves are moved by on average, 0 or more, one decimal. */
  readonly mean: string;
}

/** Compares what a section comes to with a choice and without it, student by student and exactly. */
export function compareRows(withIt: readonly BookRow[], without: readonly BookRow[]): OptionEffect {
  let [raised, lowered, blocked, moved] = [0, 0, 0, zero];
  for (const [at, { workings }] of withIt.entries()) {
    const [after, before] = [workings.percent, without[at]!.workings.percent];
    if (!after && before && workings.blockedBy.length > 0) blocked++;
    if (!after || !before) continue;
    const difference = minus(after, before);
    if (difference.numerator === 0n) continue;
    if (difference.numerator > 0n) raised++;
    else lowered++;
    moved = add(moved, difference.numerator < 0n ? minus(before, after) : difference);
  }
  const count = BigInt(raised + lowered);
  const mean = count === 0n ? '0.0' : formatAtLeast(roundTo(divide(moved, rational(count, 1n)), 1, roundHalfUp), 1);
  return { students: withIt.length, raised, lowered, blocked, mean };
}

/** "raises 12 of 20 students by 2.1 points on average". */
export function effectSentence({ students, raised, lowered, blocked, mean }: OptionEffect): string {
  const parts = [
    raised > 0 && `raises ${raised}`,
    lowered > 0 && `lowers ${lowered}`,
    blocked > 0 && `leaves ${blocked} without a grade`,
  ].filter((part) => part !== false);
  if (parts.length === 0) return `changes none of ${counted(students, 'student')}`;
  const by = raised + lowered > 0 ? `, by ${mean} points on average` : '';
  return `${listed(parts)} of ${counted(students, 'student')}${by}`;
}

/** What each choice of a policy does with the real scores of one section. */
export function optionEffects(book: BookReply, policy: CalculationPolicy) {
  const now = bookRows(book, policy);
  const against = (other: CalculationPolicy) => compareRows(now, bookRows(book, other));
  return {
    rows: now,
    cap: policy.cap ? against({ ...policy, cap: null }) : null,
    /** By category: dropping against dropping none, and its limit against none. */
    drops: new Map(
      policy.categories
        .filter(({ dropLowest }) => dropLowest > 0)
        .map(({ categoryId }) => [categoryId, against(withShare(policy, categoryId, { dropLowest: 0 }))]),
    ),
    caps: new Map(
      policy.categories
        .filter(({ cap }) => cap !== null)
        .map(({ categoryId }) => [categoryId, against(withShare(policy, categoryId, { cap: null }))]),
    ),
    /** What a flag's effect does against the next other one, where the section has such scores. */
    flag(flag: ScoreFlag): {
      readonly scores: number;
      readonly other: FlagEffect | null;
      readonly effect: OptionEffect;
    } {
      const scores = book.scores.filter((score) => score.flag === flag).length;
      const other = effectsOfFlag[flag].find((effect) => effect !== policy.flags[flag] && effect !== 'blocks') ?? null;
      const effect =
        other === null || scores === 0
          ? compareRows(now, now)
          : against({ ...policy, flags: { ...policy.flags, [flag]: other } });
      return { scores, other, effect };
    },
  };
}

/** The mean of the percents of a section and how far they reach, to one decimal; null where nobody has one. */
export function spreadOf(rows: readonly BookRow[]): { mean: string; least: string; most: string } | null {
  const percents = rows.flatMap(({ workings }) => workings.percent ?? []);
  if (percents.length === 0) return null;
  const sum = percents.reduce(add);
  const sorted = percents.toSorted((a, b) => (minus(a, b).numerator < 0n ? -1 : 1));
  const shown = (value: Rational) => formatAtLeast(roundTo(value, 1, roundHalfUp), 1);
  return {
    mean: shown(divide(sum, rational(BigInt(percents.length), 1n))),
    least: shown(sorted[0]!),
    most: shown(sorted.at(-1)!),
  };
}

function withShare(
  policy: CalculationPolicy,
  categoryId: number,
  changed: Partial<CalculationPolicy['categories'][number]>,
): CalculationPolicy {
  const categories = policy.categories.map((share) =>
    share.categoryId === categoryId ? { ...share, ...changed } : share,
  );
  return { ...policy, categories };
}

function minus(a: Rational, b: Rational): Rational {
  return add(a, { numerator: -b.numerator, denominator: b.denominator });
}
