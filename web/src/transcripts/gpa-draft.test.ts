import { describe, expect, it } from 'vitest';
import { formatDecimal } from '#core/numbers';
import type { GpaPolicyBody } from '#contract/transcripts';
import { numberFault, readDraft, sampleGpa } from './gpa-draft';

const policy: GpaPolicyBody = {
  additions: { regular: '0', honours: '0,5', college: '1' },
  leastAddedPoints: '1.7',
  mostAddedCredits: null,
  repeats: 'all',
  digits: 3,
  rounding: 'halfUp',
};

describe('drafted GPA settings', () => {
  it('take a comma for a point and say what is wrong with a number', () => {
    expect(readDraft(policy)?.additions.honours).toBe('0.5');
    expect(readDraft({ ...policy, leastAddedPoints: '1.755' })).toBeUndefined();
    expect([numberFault('0.5', 2), numberFault('-1', 2), numberFault('half', 2)]).toEqual([
      undefined,
      'a number from 0 with at most 2 decimals, such as 0.5',
      'a number from 0 with at most 2 decimals, such as 0.5',
    ]);
  });

  it('show on a small transcript that a D earns no points for its level', () => {
    // B 3.0, honours A 4.0 + 0.5, college C 2.0 + 1, honours D 1.0: 11.5 ÷ 4
    const { value, lines } = sampleGpa(readDraft(policy)!);
    expect(formatDecimal(value!)).toBe('2.875');
    expect(lines.map(({ addition }) => Number(formatDecimal(addition)))).toEqual([0, 0.5, 1, 0]);
  });
});
