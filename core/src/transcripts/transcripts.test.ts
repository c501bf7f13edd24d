import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dayOrThrow } from '#core/calendar';
import type { Course, CourseLevel } from '#core/courses';
import { decimalOrThrow, formatDecimal, roundDown, roundHalfUp, roundTo } from '#core/numbers';
import { newCode } from '#core/codes';
import { noMark } from '#core/posting';
import { letterBands } from '../../test/letter-scale.fixture.js';
import {
  countRepeats,
  creditShares,
  entryOfMark,
  gpa,
  periodShare,
  type GpaPolicy,
  type RepeatRule,
  type TranscriptEntry,
} from './index.js';

const nothing = decimalOrThrow('0');
const unweighted: GpaPolicy = {
  additions: { regular: nothing, honours: nothing, college: nothing },
  leastAddedPoints: decimalOrThrow('1.7'),
  mostAddedCredits: null,
  repeats: 'all',
  digits: 3,
  rounding: roundHalfUp,
};

const course: Course = {
  id: 1,
  schoolId: 1,
  code: 'TID3',
  title: 'Tidal Ecology 3',
  department: 'Sea',
  level: 'regular',
  length: 'year',
  credits: decimalOrThrow('1'),
  kind: 'academic',
  mostCredits: null,
  onTranscript: true,
  countsInGpa: true,
  allowsExempt: true,
};
const codes = new Map(
  [
    newCode('INC', 'Incomplete', { triesCredit: true }),
    newCode('EXM', 'Exempt', { onTranscript: false }),
    newCode('NVA', 'Never attended', { triesCredit: true, isFailing: true, countsInGpa: true }),
    newCode('PAS', 'Pass', { triesCredit: true, earnsCredit: true }),
  ].map((code) => [code.code, code]),
);

function entry(
  points: string,
  credits: string,
  level: CourseLevel = 'regular',
  more: Partial<TranscriptEntry> = {},
): TranscriptEntry {
  const tried = decimalOrThrow(credits);
  return {
    courseCode: 'X',
    courseTitle: 'X',
    level,
    percent: null,
    mark: points,
    points: decimalOrThrow(points),
    passes: points !== '0',
    creditsTried: tried,
    creditsEarned: tried,
    countsInGpa: true,
    attempt: 1,
    mostCredits: null,
    ...more,
  };
}
const value = (entries: TranscriptEntry[], policy: GpaPolicy) => {
  const result = gpa(entries, policy).value;
  return result && formatDecimal(result);
};

describe('GPA', () => {
  it('is points times credits over credits', () => {
    // 4.0 × 0.25 + 3.3 × 0.25 + 2.0 × 0.5 = 2.825 over 1.0
    expect(value([entry('4.0', '0.25'), entry('3.3', '0.25'), entry('2.0', '0.5')], unweighted)).toBe('2.825');
  });

  it('is rounded or cut once, at the digits stated', () => {
    const thirds = [entry('4', '1'), entry('4', '1'), entry('3', '1')];
    expect(value(thirds, unweighted)).toBe('3.667');
    expect(value(thirds, { ...unweighted, rounding: roundDown, digits: 2 })).toBe('3.66');
  });

  it('is nothing, not zero, when no entry counts', () => {
    expect(gpa([], unweighted).value).toBeNull();
    const left = { ...entry('4', '1'), countsInGpa: false };
    expect(gpa([left], unweighted)).toMatchObject({ value: null, leftOut: [left] });
  });

  // University of California, freshman GPA requirement (from memory): A 4 … F 0, one extra point for A, B, C in honours
  // courses.
  it('gives one extra point to honours grades from A to C, and none to a D or an F', () => {
    const policy = { ...unweighted, additions: { ...unweighted.additions, honours: decimalOrThrow('1') } };
    expect(
      value(
        [entry('4', '1', 'honours'), entry('3', '1'), entry('2', '1', 'honours'), entry('0', '1', 'honours')],
        policy,
      ),
    ).toBe('2.750');
    const honours = (points: string) => value([entry(points, '1', 'honours')], policy);
    expect(['4', '2', '1.7', '1.3', '1', '0'].map(honours)).toEqual([
      '5.000',
      '3.000',
      '2.700',
      '1.300',
      '1.000',
      '0.000',
    ]);
  });

  // The same source: at most 8 semesters carry the extra point. Counted here as one credit a semester, ten semesters of A
  // in honours courses and two of B in others make (10 × 4 + 8 + 2 × 3) ÷ 12. Its second limit, by year, is not applied.
  it('gives the extra point for no more credits than the limit', () => {
    const policy = {
      ...unweighted,
      additions: { ...unweighted.additions, honours: decimalOrThrow('1') },
      mostAddedCredits: decimalOrThrow('8'),
    };
    const semesters = [
      ...Array.from({ length: 10 }, () => entry('4', '1', 'honours')),
      entry('3', '1'),
      entry('3', '1'),
    ];
    expect(value(semesters, policy)).toBe('4.500');
    expect(value(semesters, { ...policy, mostAddedCredits: null })).toBe('4.667');
  });

  it('gives the largest additions first where they are limited, and part of a course’s credits at the edge', () => {
    const policy = {
      ...unweighted,
      additions: { ...unweighted.additions, honours: decimalOrThrow('0.5'), college: decimalOrThrow('1') },
      mostAddedCredits: decimalOrThrow('1.25'),
    };
    const { lines } = gpa([entry('3', '1', 'honours'), entry('3', '1', 'college'), entry('0', '1', 'college')], policy);
    expect(lines.map(({ addedCredits }) => formatDecimal(addedCredits))).toEqual(['0.25', '1', '0.00']);
    expect(lines.map(({ product }) => formatDecimal(roundTo(product, 3, roundHalfUp)))).toEqual([
      '3.125',
      '4.000',
      '0.000',
    ]);
  });

  it('lies between the least and the greatest points, whatever the credits', () => {
    const entries = fc.array(
      fc.record({ points: fc.integer({ min: 0, max: 40 }), credits: fc.integer({ min: 1, max: 400 }) }),
      { minLength: 1 },
    );
    fc.assert(
      fc.property(entries, (drawn) => {
        const made = drawn.map(({ points, credits }) =>
          entry(
            formatDecimal({ units: BigInt(points), digits: 1 }),
            formatDecimal({ units: BigInt(credits), digits: 2 }),
          ),
        );
        const { value: result } = gpa(made, unweighted);
        const points = drawn.map((each) => each.points * 100);
        return Number(result!.units) >= Math.min(...points) && Number(result!.units) <= Math.max(...points);
      }),
      { seed: 3 },
    );
  });
});

describe('a course taken again', () => {
  const twice = (rule: RepeatRule, mostCredits: string | null, ...points: string[]) => {
    const most = mostCredits === null ? null : decimalOrThrow(mostCredits);
    const entries = points.map((each, at) => entry(each, '1', 'regular', { attempt: at, mostCredits: most }));
    const counted = countRepeats(entries, rule);
    return [
      value(entries, { ...unweighted, repeats: rule }),
      ...counted.map(({ attempted, earned }) => `${Number(formatDecimal(attempted))}/${Number(formatDecimal(earned))}`),
    ];
  };
  it.each<[string, RepeatRule, string | null, string[], (string | null)[]]>([
    ['counts every time where the course states no limit', 'all', null, ['2', '3'], ['2.500', '1/1', '1/1']],
    ['earns no more credits than the course gives', 'all', '1', ['2', '3'], ['2.500', '1/1', '1/0']],
    ['counts with its best attempt', 'highest', '1', ['3', '2'], ['3.000', '1/1', '0/0']],
    ['counts with its newest attempt', 'latest', '1', ['3', '2'], ['2.000', '0/0', '1/1']],
    ['counts in part where the limit leaves a part', 'latest', '1.5', ['3', '2'], ['2.333', '0.5/0.5', '1/1']],
    ['keeps the newer of two that are as good', 'highest', '1', ['3', '3'], ['3.000', '0/0', '1/1']],
  ])('%s', (_what, rule, most, points, expected) => expect(twice(rule, most, ...points)).toEqual(expected));

  it('within one attempt the lines belong together: four quarters of one course are no repeats', () => {
    const quarters = ['4', '3', '3', '2'].map((points) =>
      entry(points, '0.25', 'regular', { mostCredits: decimalOrThrow('1') }),
    );
    expect(value(quarters, { ...unweighted, repeats: 'highest' })).toBe('3.000');
  });
});

describe('credit shares', () => {
  it.each([
    ['1', 4, ['0.2500', '0.2500', '0.2500', '0.2500']],
    ['1', 3, ['0.3333', '0.3334', '0.3333']],
    ['0.5', 2, ['0.2500', '0.2500']],
    ['3', 1, ['3.0000']],
  ])('%s over %i periods', (credits, periods, expected) => {
    expect(creditShares(decimalOrThrow(credits), periods).map(formatDecimal)).toEqual(expected);
  });

  it('always add up to the credits', () => {
    fc.assert(
      fc.property(fc.bigInt({ min: 0n, max: 100_000n }), fc.integer({ min: 1, max: 24 }), (units, periods) => {
        const sum = creditShares({ units, digits: 4 }, periods).reduce((total, share) => total + share.units, 0n);
        return sum === units;
      }),
      { seed: 4 },
    );
  });
});

describe('the credits of a section with days of its own', () => {
  const day = dayOrThrow;
  const quarter = (id: number, startsOn: string, endsOn: string) => ({
    id,
    startsOn: day(startsOn),
    endsOn: day(endsOn),
  });
  const quarters = [
    quarter(1, '2025-09-01', '2025-11-07'),
    quarter(2, '2025-11-10', '2026-01-23'),
    quarter(3, '2026-01-26', '2026-04-03'),
    quarter(4, '2026-04-06', '2026-06-12'),
  ];
  const shares = (startsOn: string, endsOn: string) =>
    quarters.map((each) =>
      formatDecimal(periodShare(course.credits, { startsOn: day(startsOn), endsOn: day(endsOn) }, each, quarters)),
    );

  it.each([
    ['begins a day late', '2025-09-02', '2026-06-12', ['0.2500', '0.2500', '0.2500', '0.2500']],
    ['ends within the third quarter', '2025-09-01', '2026-02-06', ['0.3333', '0.3334', '0.3333', '0']],
    ['lies within one quarter', '2025-12-01', '2025-12-19', ['0', '1.0000', '0', '0']],
  ])('that %s are dealt out over the quarters it runs in', (_what, startsOn, endsOn, expected) =>
    expect(shares(startsOn, endsOn)).toEqual(expected),
  );

  it('add up to the credits of the course, whatever the days', () => {
    const days = fc.integer({ min: 0, max: 283 });
    fc.assert(
      fc.property(days, days, (one, other) => {
        const runs = [Math.min(one, other), Math.max(one, other)].map((after) => addDays(day('2025-09-01'), after));
        // a weekend between two quarters belongs to neither
        fc.pre(quarters.some(({ startsOn, endsOn }) => runs[0]! <= endsOn && startsOn <= runs[1]!));
        const sum = shares(runs[0]!, runs[1]!).reduce((total, each) => total + Number(each), 0);
        expect(sum).toBeCloseTo(1, 10);
      }),
      { seed: 12 },
    );
  });
});

describe('the transcript line of a mark', () => {
  const share = decimalOrThrow('0.25');
  const line = (mark: object) => {
    const made = entryOfMark(course, { ...noMark, ...mark }, letterBands, codes, share, 1);
    return (
      made && [
        made.mark,
        made.points && formatDecimal(made.points),
        formatDecimal(made.creditsTried),
        formatDecimal(made.creditsEarned),
      ]
    );
  };

  it.each([
    ['a label tries and earns', { percent: decimalOrThrow('86.4'), label: 'B' }, ['B', '3.0', '0.25', '0.25']],
    ['a failing label tries and earns nothing', { label: 'F' }, ['F', '0.0', '0.25', '0']],
    ['an incomplete tries, earns nothing and has no points', { code: 'INC' }, ['INC', null, '0.25', '0']],
    ['a code that transcripts leave out gives no line', { code: 'EXM' }, undefined],
    ['nothing posted gives no line', {}, undefined],
    ['a label the scale does not know gives no line', { label: 'Z' }, undefined],
  ])('%s', (_what, mark, expected) => expect(line(mark)).toEqual(expected));

  it('a course that is not on the transcript gives none', () => {
    expect(
      entryOfMark({ ...course, onTranscript: false }, { ...noMark, label: 'B' }, letterBands, codes, share, 1),
    ).toBeUndefined();
  });
});
