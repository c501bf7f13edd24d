import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, roundHalfUp, roundTo, type Rational } from '#core/numbers';
import {
  calculateExact,
  columnsOf,
  explainGrade,
  preparePolicy,
  readScore,
  type BookScore,
  type CalculationPolicy,
  type Method,
} from './index.js';
import { score, share, usualLevels, usualPolicy } from '../../test/usual-policy.fixture.js';

const shown = (value: Rational | null, digits = 4) => value && formatDecimal(roundTo(value, digits, roundHalfUp));
const percent = (scores: readonly BookScore[], policy: Partial<CalculationPolicy> = {}) =>
  shown(explainGrade(scores, { ...usualPolicy, ...policy }).percent);
const treatments = (scores: readonly BookScore[], policy: Partial<CalculationPolicy> = {}) =>
  explainGrade(scores, { ...usualPolicy, ...policy }).scores.map(({ treatment, isDropped }) =>
    isDropped ? 'dropped' : treatment,
  );
const quiz = (written: string, more: Partial<BookScore> = {}) => score(written, { categoryId: 2, ...more });
const test = (written: string, more: Partial<BookScore> = {}) => score(written, { categoryId: 3, ...more });

describe('categories', () => {
  // Common practice: 84 × 0.5 + 90 × 0.3 + 70 × 0.2 = 83
  const book = [score('84/100'), quiz('90/100'), test('70/100')];

  it('count by their weights', () => expect(percent(book)).toBe('83.0000'));

  it('count a third each when three have the same weight, whatever it is', () => {
    const thirds = [share(1, '1'), share(2, '1'), share(3, '1')];
    expect(percent(book, { categories: thirds })).toBe('81.3333');
    expect(percent(book, { categories: [share(1, '33.33'), share(2, '33.33'), share(3, '33.33')] })).toBe('81.3333');
  });

  it('without scores leave their weight to the others', () => {
    // (84 × 50 + 90 × 30) ÷ 80
    expect(percent(book.slice(0, 2))).toBe('86.2500');
    const { categories } = explainGrade(book.slice(0, 2), usualPolicy);
    expect(categories.map((each) => shown(each.share, 2))).toEqual(['62.50', '37.50', null]);
  });

  it('count by points within, or every assignment the same', () => {
    const two = [score('10/10'), score('45/90')];
    expect(percent(two)).toBe('55.0000');
    expect(percent(two, { method: 'categoryEqual' })).toBe('75.0000');
    expect(percent([...two, quiz('0/900')], { method: 'totalPoints' })).toBe('5.5000');
  });

  it('that a policy does not speak of count only in total points', () => {
    const stray = [score('8/10'), score('10/10', { categoryId: 9 }), score('10/10', { categoryId: null })];
    expect(percent(stray)).toBe('80.0000');
    expect(treatments(stray)).toEqual(['counted', 'noCategory', 'noCategory']);
    expect(percent(stray, { method: 'totalPoints' })).toBe('93.3333');
  });
});

describe('flags', () => {
  it.each<[string, BookScore, string | null, string]>([
    ['missing counts as zero', score('/10', { flag: 'missing' }), '40.0000', 'countedAsZero'],
    ['late lets the points stand', score('10/10', { flag: 'late' }), '90.0000', 'counted'],
    ['late without points is not scored yet', score('/10', { flag: 'late' }), '80.0000', 'notScored'],
    ['exempt leaves, with points too', score('1/10', { flag: 'exempt' }), '80.0000', 'leftOut'],
    ['nothing recorded does not count', score('/10'), '80.0000', 'notScored'],
    ['an assignment that is not counted does not', score('0/10', { isCounted: false }), '80.0000', 'notCounted'],
    ['incomplete blocks', score('5/10', { flag: 'incomplete' }), null, 'blocks'],
  ])('%s', (_what, own, expected, treatment) => {
    const book = [score('8/10'), own];
    expect([percent(book), treatments(book)[1]]).toEqual([expected, treatment]);
  });

  it('that block are named, and take another effect when the policy says so', () => {
    const book = [score('8/10'), score('5/10', { flag: 'incomplete' })];
    expect(explainGrade(book, usualPolicy).blockedBy).toEqual([book[1]!.assignmentId]);
    const as = (incomplete: 'zero' | 'leaves') => percent(book, { flags: { ...usualPolicy.flags, incomplete } });
    expect([as('zero'), as('leaves')]).toEqual(['40.0000', '80.0000']);
  });

  it('leave nothing when all are exempt, or nothing is there', () => {
    expect(percent([score('8/10', { flag: 'exempt' })])).toBeNull();
    expect(percent([])).toBeNull();
  });
});

describe('extra points and limits', () => {
  it('an assignment out of zero, or marked extra, only adds', () => {
    expect(percent([score('8/10'), score('1/0')])).toBe('90.0000');
    expect(percent([score('8/10'), score('1/10', { isExtra: true })])).toBe('90.0000');
    expect(percent([score('1/0', { flag: 'missing' }), score('8/10')])).toBe('80.0000');
  });

  it('extra points alone are no evidence', () => expect(percent([score('5/0')])).toBeNull());

  it('a limit on a category holds it, a limit on the whole holds the whole', () => {
    const book = [score('10/10'), score('2/0'), quiz('5/10')];
    // 120 × 50 + 50 × 30 over 80
    expect(percent(book)).toBe('93.7500');
    const limited = [share(1, '50', { cap: decimalOrThrow('100') }), share(2, '30'), share(3, '20')];
    expect(percent(book, { categories: limited })).toBe('81.2500');
    expect(percent(book.slice(0, 2))).toBe('120.0000');
    expect(percent(book.slice(0, 2), { cap: decimalOrThrow('100') })).toBe('100.0000');
    expect(explainGrade(book.slice(0, 2), { ...usualPolicy, cap: decimalOrThrow('100') }).isLimited).toBe(true);
    expect(percent(book, { categories: limited, method: 'totalPoints' })).toBe('75.0000');
  });
});

describe('dropping the lowest', () => {
  const dropping = (dropLowest: number) => ({ categories: [share(1, '100', { dropLowest })] });

  it('by points takes the choice that is best, not the lowest percentage', () => {
    // 0/1 is the lowest percentage; without 20/50 it is 18/21 (85.7 %), without 0/1 only 38/70 (54.3 %).
    const book = [score('0/1'), score('20/50'), score('18/20')];
    expect(treatments(book, dropping(1))).toEqual(['counted', 'dropped', 'counted']);
    expect(percent(book, dropping(1))).toBe('85.7143');
  });

  it('where every assignment counts the same takes the lowest percentage', () => {
    const book = [score('0/1'), score('20/50'), score('18/20')];
    expect(treatments(book, { ...dropping(1), method: 'categoryEqual' })).toEqual(['dropped', 'counted', 'counted']);
  });

  it('never takes the last score, and never extra points', () => {
    expect(treatments([score('3/10'), score('9/10')], dropping(5))).toEqual(['dropped', 'counted']);
    expect(treatments([score('3/10'), score('1/0')], dropping(1))).toEqual(['counted', 'extra']);
  });

  it('in total points looks at the whole, not at the category alone', () => {
    // Without 19/20 the whole is 175/1100, without 75/100 it is 119/1020; 194/1120 with both is best.
    const book = [score('19/20'), score('75/100'), quiz('100/1000')];
    expect(percent(book, { ...dropping(1), method: 'totalPoints' })).toBe('17.3214');
    expect(treatments([...book, score('1/100')], { ...dropping(1), method: 'totalPoints' }).at(-1)).toBe('dropped');
  });
});

describe('evidence', () => {
  const levels = (written: string) => written.split(' ').map((level) => score(`${level}/4`));
  const level = (method: Method, written: string) =>
    shown(explainGrade(levels(written), { ...usualPolicy, method, levels: usualLevels }).categories[0]!.level);

  it.each<[Method, string, string]>([
    // Common practice: the newest counts 75 % against all before it. 0.75 × 4 + 0.25 × (0.75 × 3 + 0.25 × 2)
    ['decaying', '2 3 4', '3.6875'],
    ['decaying', '4', '4.0000'],
    ['mostRecent', '4 2 3', '3.0000'],
    ['highest', '2 4 3', '4.0000'],
    ['mode', '2 3 3 2', '2.0000'],
    ['mode', '4 3 3', '3.0000'],
    ['mean', '2 3 4 4', '3.2500'],
    // ln y = ln 2 + 0.5 ln x holds for 2, 2√2 and 4 at 1, 2 and 4; two points lie on their own curve exactly.
    ['powerLaw', '2 4', '4.0000'],
    ['powerLaw', '3 3 3', '3.0000'],
    ['powerLaw', '0 0', '0.0000'],
    ['powerLaw', '3', '3.0000'],
  ])('%s of %s', (method, written, expected) => expect(level(method, written)).toBe(expected));

  it('turns a level into a percent of the highest one', () =>
    expect(percent(levels('3 3'), { method: 'mean', levels: usualLevels })).toBe('75.0000'));

  it('says where a student stands by each standard', () => {
    const policy = { ...usualPolicy, method: 'mean' as const, levels: { ...usualLevels, evidence: 2 } };
    const book = [...levels('4 4'), quiz('3/4'), quiz('2/4')];
    expect(explainGrade(book, policy).categories.map(({ standing }) => standing)).toEqual([
      'exceeds',
      'below',
      'no evidence',
    ]);
    expect(explainGrade([score('4/4')], policy).categories[0]!.standing).toBe('too little evidence');
    expect(explainGrade(levels('3 3'), policy).categories[0]!.standing).toBe('meets');
  });

  it('finds scores of an older level scale and does not average them in', () => {
    const book = [score('3/4'), score('9/10'), score('1/4', { isExtra: true })];
    expect(treatments(book, { method: 'mean', levels: usualLevels })).toEqual(['counted', 'otherScale', 'otherScale']);
    expect(percent(book, { method: 'mean', levels: usualLevels })).toBe('75.0000');
  });
});

describe('a student in company', () => {
  it('comes to the same as alone, whoever was calculated before under whatever policy', () => {
    // The one before leaves sums in a fourth category; the drop of this one looks at everything in the pot.
    const before = { ...usualPolicy, categories: [1, 2, 3, 4].map((id) => share(id, '25')) };
    const policy = { ...usualPolicy, method: 'totalPoints' as const, categories: [share(1, '100', { dropLowest: 1 })] };
    const own = [score('5/10'), score('40/100'), score('95/100', { categoryId: null })];
    const columns = columnsOf([[score('0/1000', { categoryId: 4 })], own], before);
    const prepared = [before, policy].map(preparePolicy);
    const [, together] = calculateExact(columns, prepared, [0, 1]);
    // (5 + 95) ÷ 110, without the 40 of 100
    expect([shown(together!.percent), percent(own, policy)]).toEqual(['90.9091', '90.9091']);
  });
});

describe('a drop under a limit', () => {
  it('is made only where it helps once the limit is applied', () => {
    const policy = {
      method: 'totalPoints' as const,
      categories: [share(1, '100', { dropLowest: 1, cap: decimalOrThrow('100') })],
    };
    const book = [
      score('10/10'),
      score('20/40'),
      score('20/0', { isExtra: true }),
      score('60/100', { categoryId: null }),
    ];
    // With both: (50 of 50, held to its limit) + 60 of 100 = 110 ÷ 150. Without the 20/40 only 10 + 60 of 110.
    expect(percent(book, policy)).toBe('73.3333');
    expect(treatments(book, policy)).toEqual(['counted', 'counted', 'extra', 'counted']);
  });
});

describe('the power law', () => {
  const level = (written: string) =>
    shown(
      explainGrade(
        written.split(' ').map((each) => score(`${each}/4`)),
        { ...usualPolicy, method: 'powerLaw', levels: usualLevels },
      ).categories[0]!.level,
    );
  it('counts a zero as what it is: a 4 and then three zeros are near 0, not a 4', () =>
    expect(Number(level('4 0 0 0'))).toBeLessThan(0.5));
  it('lets one zero among threes pull down about as much as the mean does', () =>
    expect(Number(level('3 0 3 3'))).toBeCloseTo(2.05, 2));
  it('predicts nothing above the scale', () => expect(level('1 3 4')).toBe('4.0000'));
});

describe('what stands outside', () => {
  it('a score on an older scale is found whether it has points or a flag, and neither counts nor blocks', () => {
    const book = [
      score('4/4'),
      score('/10', { flag: 'missing' }),
      score('/10', { flag: 'incomplete' }),
      score('8/10', { flag: 'late' }),
      score('/10'),
    ];
    const policy = { method: 'mean' as const, levels: usualLevels };
    expect(percent(book, policy)).toBe('100.0000');
    expect(treatments(book, policy)).toEqual(['counted', 'otherScale', 'otherScale', 'otherScale', 'notScored']);
  });

  it.each([
    ['without a category of the policy', { categoryId: 9 }],
    ['in a category that weighs nothing', { categoryId: 2 }],
  ])('an incomplete %s blocks nothing', (_where, place) => {
    const book = [score('8/10'), score('/10', { flag: 'incomplete', ...place })];
    const policy = { categories: [share(1, '100'), share(2, '0')] };
    expect(percent(book, policy)).toBe('80.0000');
    expect(treatments(book, policy)).toEqual(['counted', 'noCategory']);
  });

  it('blocks in one pot, where everything counts', () =>
    expect(
      explainGrade([score('8/10'), score('/10', { flag: 'incomplete', categoryId: 9 })], {
        ...usualPolicy,
        method: 'totalPoints',
      }).blockedBy.length,
    ).toBe(1));
});

describe('what is typed into a grade book', () => {
  const plain = { possible: decimalOrThrow('20'), isExtra: false };
  const read = (text: string, of = plain) => {
    const entry = readScore(text, of);
    if (entry.kind === 'fault') return entry.code;
    return `${entry.score.points ? formatDecimal(entry.score.points) : ''} ${entry.score.flag ?? ''}`.trim();
  };
  it.each([
    ['18', '18'],
    ['8,5', '8.5'],
    ['18 late', '18 late'],
    ['18l', '18 late'],
    ['mi', 'missing'],
    ['EX', 'exempt'],
    ['', ''],
    ['-1', 'score-negative'],
    ['20.5', 'score-above'],
    ['1.255', 'score-digits'],
    ['good', 'score-unreadable'],
    ['1.2.3', 'score-unreadable'],
  ])('“%s” is %s', (text, expected) => expect(read(text)).toBe(expected));

  it('may go above what an assignment is out of only where it adds', () => {
    expect(read('25', { ...plain, isExtra: true })).toBe('25');
    expect(read('3', { possible: decimalOrThrow('0'), isExtra: false })).toBe('3');
  });
});
