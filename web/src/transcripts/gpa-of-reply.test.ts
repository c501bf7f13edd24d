import { describe, expect, it } from 'vitest';
import { formatDecimal } from '#core/numbers';
import { sumCredits } from '#core/transcripts';
import type { TranscriptPeriodReply } from '#contract/transcripts';
import { bothGpas, entriesOf, sealedEntries } from './gpa-of-reply';

const policy = {
  additions: { regular: '0', honours: '0.5', college: '1' },
  leastAddedPoints: '1.7',
  mostAddedCredits: null,
  repeats: 'all',
  digits: 3,
  rounding: 'halfUp',
} as const;

function period(
  name: string,
  sealedAt: string | null,
  ...lines: [mark: string, points: string | null, level: 'regular' | 'honours'][]
): TranscriptPeriodReply {
  return {
    periodId: name.length,
    name,
    sealedAt,
    entries: lines.map(([mark, points, level], at) => ({
      courseCode: `C${at}`,
      courseTitle: `Course ${at}`,
      level,
      percent: null,
      mark,
      points,
      passes: mark !== 'F',
      creditsTried: '0.2500',
      creditsEarned: mark === 'F' ? '0.0000' : '0.2500',
      countsInGpa: true,
      attempt: at,
      mostCredits: null,
    })),
  };
}

const sealed = period(
  'Quarter 1',
  '2025-11-13T14:05:00Z',
  ['A', '4.0', 'honours'],
  ['B', '3.0', 'regular'],
  ['F', '0.0', 'honours'],
  ['INC', null, 'regular'],
);
const open = period('Quarter 2', null, ['F', '0.0', 'regular']);

describe('the averages of a transcript', () => {
  const { unweighted, weighted } = bothGpas(sealedEntries({ periods: [sealed, open] }), policy);

  it('count sealed periods only', () => {
    expect(unweighted.lines.length).toBe(3);
    expect(formatDecimal(unweighted.value!)).toBe('2.333'); // (4.0 + 3.0 + 0.0) ÷ 3
  });

  it('weighted, add for a passing honours grade and not for a failing one', () => {
    expect(formatDecimal(weighted.value!)).toBe('2.500'); // (4.5 + 3.0 + 0.0) ÷ 3
  });

  it('leave out, by name, what carries no points', () => {
    expect(weighted.leftOut.map(({ mark }) => mark)).toEqual(['INC']);
  });
});

it('credits are summed exactly, tried and earned apart', () => {
  const entries = entriesOf(sealed);
  expect(formatDecimal(sumCredits(entries.map(({ creditsTried }) => creditsTried)))).toBe('1.0000');
  expect(formatDecimal(sumCredits(entries.map(({ creditsEarned }) => creditsEarned)))).toBe('0.7500');
  expect(formatDecimal(sumCredits([]))).toBe('0');
});
