import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, roundHalfUp } from '#core/numbers';
import type { CourseLevel } from '#core/courses';
import { draftEffect, findBand, type Band, type Precision } from '#core/scales';
import { gpa, type GpaPolicy, type TranscriptEntry } from '#core/transcripts';
import { letterBands } from '../../test/letter-scale.fixture.js';
import { effectOfScales, gradeColumns, type EffectGpaPolicy, type GradeColumns } from './index.js';

const precision = { digits: 1, rounding: roundHalfUp };
const policy: EffectGpaPolicy = {
  leastAddedPoints: decimalOrThrow('1.7'),
  mostAddedCredits: null,
  repeats: 'all',
  digits: 3,
  rounding: roundHalfUp,
  mostCredits: new Map(),
};
/** A draft in the place of the bands that all grades are looked at under. */
const effectOfDraft = (
  columns: GradeColumns,
  before: readonly Band[],
  after: readonly Band[],
  own: Precision,
  gpaPolicy: EffectGpaPolicy,
) => effectOfScales(columns, [{ postedUnder: before, before, after, precision: own, isConcerned: true }], gpaPolicy);

/** Student, percent, posted label; a credit of 1 each, in the GPA. */
function columnsOf(rows: readonly (readonly [student: number, percent: string | null, label: string | null])[]) {
  const labels = [...new Set(rows.flatMap(([, , label]) => label ?? []))];
  const columns = gradeColumns(rows.length, labels);
  rows.forEach(([student, percent, label], row) => {
    columns.student[row] = student;
    columns.percent[row] = percent === null ? -1 : Math.round(Number(percent) * 100);
    columns.label[row] = label === null ? -1 : labels.indexOf(label);
    columns.credits[row] = 10_000;
    columns.counts[row] = 1;
  });
  return columns;
}
const withCutOff = (label: string, lowest: string): Band[] =>
  letterBands.map((band) => (band.label === label ? { ...band, lowest: decimalOrThrow(lowest) } : band));
const changedMoves = (effect: ReturnType<typeof effectOfDraft>) =>
  effect.moves.filter(({ from, to }) => from !== to).map(({ from, to, grades }) => `${grades} ${from} → ${to}`);

describe('the effect of a draft', () => {
  it('counts labels from and to, passes anew, and the GPA of each student before and after', () => {
    // 64.9 passes with D from 64; 89.6 becomes an A−. GPA of student 0: (0.0 + 3.3) / 2 = 1.65, then (1.0 + 3.7) / 2 = 2.35.
    const draft = withCutOff('D', '64').map((band) =>
      band.label === 'A-' ? { ...band, lowest: decimalOrThrow('89.5') } : band,
    );
    const effect = effectOfDraft(
      columnsOf([
        [0, '64.9', 'F'],
        [0, '89.6', 'B+'],
        [1, '95', 'A'],
      ]),
      letterBands,
      draft,
      precision,
      policy,
    );
    expect(changedMoves(effect).toSorted()).toEqual(['1 B+ → A-', '1 F → D']);
    expect([effect.grades, effect.changed, effect.passAnew, effect.failAnew]).toEqual([3, 2, 1, 0]);
    expect(
      effect.students.map(({ student, gpaBefore, gpaAfter }) => [
        student,
        formatDecimal(gpaBefore!),
        formatDecimal(gpaAfter!),
      ]),
    ).toEqual([[0, '1.650', '2.350']]);
    expect([formatDecimal(effect.meanBefore!), formatDecimal(effect.meanAfter!)]).toEqual(['2.825', '3.175']);
  });

  it('leaves a label that somebody chose against its percent', () => {
    const effect = effectOfDraft(
      columnsOf([[0, '89.6', 'A']]),
      letterBands,
      withCutOff('A-', '89.5'),
      precision,
      policy,
    );
    expect(effect.changed).toBe(0);
  });

  it('a label that the draft no longer has is lost where nothing else gives one', () => {
    const draft = letterBands.map((band) => (band.label === 'D' ? { ...band, isOff: true } : band));
    const effect = effectOfDraft(
      columnsOf([
        [0, null, 'D'],
        [0, '66', 'D'],
      ]),
      letterBands,
      draft,
      precision,
      policy,
    );
    expect(changedMoves(effect).toSorted()).toEqual(['1 D → F', '1 D → null']);
    expect(effect.failAnew).toBe(2);
  });

  it('a label that neither scale knows is left alone', () => {
    const effect = effectOfDraft(columnsOf([[0, '70', 'Q']]), letterBands, withCutOff('C-', '69'), precision, policy);
    expect(effect.changed).toBe(0);
  });

  it('what is only computed counts with the label it would have', () => {
    const effect = effectOfDraft(
      columnsOf([[0, '89.5', null]]),
      letterBands,
      withCutOff('A-', '89.5'),
      precision,
      policy,
    );
    expect(changedMoves(effect)).toEqual(['1 B+ → A-']);
  });

  it('gives every percent the label that the one rule of a scale gives it, and moves as many as the quick count says', () => {
    const percents = fc.array(fc.integer({ min: 0, max: 1200 }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(percents, fc.integer({ min: 8710, max: 9290 }), (tenths, cutOff) => {
        const draft = withCutOff('A-', (cutOff / 100).toFixed(2));
        const values = tenths.map((tenth) => (tenth / 10).toFixed(1));
        const effect = effectOfDraft(
          columnsOf(values.map((value) => [0, value, null])),
          letterBands,
          draft,
          precision,
          policy,
        );
        for (const { row, from, to } of effect.changedRows) {
          const label = (bands: readonly Band[]) =>
            findBand(bands, decimalOrThrow(values[row]!), precision).band?.label;
          expect([from, to]).toEqual([label(letterBands), label(draft)]);
        }
        const quick = draftEffect(
          letterBands,
          draft,
          values.map((value) => ({ percent: decimalOrThrow(value), grades: 1 })),
          precision,
        );
        expect(effect.changed).toBe(quick.up + quick.down);
      }),
      { seed: 20_260_121 },
    );
  });
});

describe('the GPA of a preview', () => {
  const levels: readonly CourseLevel[] = ['regular', 'honours', 'college'];
  const additions = { regular: decimalOrThrow('0'), honours: decimalOrThrow('0.5'), college: decimalOrThrow('1') };
  const marks = [...letterBands.map(({ label }) => label), 'NVA'];
  const line = fc.record({
    mark: fc.constantFrom(...marks),
    credits: fc.constantFrom(2500, 3333, 5000, 10_000),
    level: fc.constantFrom(...levels),
    course: fc.integer({ min: 1, max: 4 }),
    counts: fc.boolean(),
  });

  it('is that of the transcript’s lines, with additions, their limit, repeats and codes', () => {
    const cases = fc.record({
      lines: fc.array(line, { minLength: 1, maxLength: 8 }),
      most: fc.constantFrom(null, '0.5', '1'),
      repeats: fc.constantFrom('all' as const, 'highest' as const, 'latest' as const),
    });
    fc.assert(
      fc.property(cases, ({ lines, most, repeats }) => {
        const mostCredits = new Map([1, 2].map((course) => [course, decimalOrThrow('0.5')]));
        const own: GpaPolicy = {
          ...policy,
          additions,
          repeats,
          mostAddedCredits: most === null ? null : decimalOrThrow(most),
        };
        const entries = lines.map(({ mark, credits, level, course, counts }, at): TranscriptEntry => {
          const band = letterBands.find(({ label }) => label === mark);
          const tried = { units: BigInt(credits), digits: 4 };
          return {
            courseCode: String(course),
            courseTitle: '',
            level,
            percent: null,
            mark,
            points: band?.points ?? decimalOrThrow('0'),
            passes: band?.passes ?? false,
            creditsTried: tried,
            creditsEarned: tried,
            countsInGpa: counts,
            attempt: at,
            mostCredits: mostCredits.get(course) ?? null,
          };
        });
        const columns = gradeColumns(lines.length, marks.slice(0, -1));
        lines.forEach(({ mark, credits, level, course, counts }, row) => {
          columns.percent[row] = -1;
          columns.label[row] = mark === 'NVA' ? -1 : marks.indexOf(mark);
          columns.codePoints[row] = mark === 'NVA' ? 0 : -1;
          columns.credits[row] = credits;
          columns.addition[row] = Number(formatDecimal(additions[level])) * 100;
          columns.counts[row] = counts ? 1 : 0;
          columns.course[row] = course;
          columns.attempt[row] = row;
        });
        const { meanBefore, meanAfter } = effectOfDraft(columns, letterBands, letterBands, precision, {
          ...own,
          mostCredits,
        });
        const { value } = gpa(entries, own);
        const shown = [meanBefore, meanAfter].map((mean) => mean && formatDecimal(mean));
        expect(shown).toEqual([value && formatDecimal(value), value && formatDecimal(value)]);
      }),
      { seed: 8, numRuns: 400 },
    );
  });
});
