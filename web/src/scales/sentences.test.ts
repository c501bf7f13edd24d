import { describe, expect, it } from 'vitest';
import { newCode, type SpecialCode } from '#core/codes';
import { bodyOfCode } from '#contract/codes';
import type { BandBody, ScaleEffectReply } from '#contract/scales';
import { codeSentence } from '../codes/code-sentence';
import { countsOf, effectLabels } from './effect/effect-labels';

describe('the effects of a code in one sentence', () => {
  const says = (effects: Partial<SpecialCode>) => codeSentence(bodyOfCode(newCode('XYZ', 'Any', effects)));
  it.each<[Partial<SpecialCode>, string]>([
    [{}, 'In a composite it counts as missing; no credit is attempted.'],
    [
      { asPart: 'leaves', onTranscript: false },
      'In a composite it is not counted; no credit is attempted; stays off the transcript.',
    ],
    [
      { asPart: 'blocks', triesCredit: true, needsLastDate: true, lapsesInto: 'F', lapsesAfterDays: 30 },
      'In a composite it makes the overall result incomplete; credit is attempted, not earned; needs a last date; turns into F after 30 days.',
    ],
    [
      {
        asPart: 'counts',
        countsAs: { units: 0n, digits: 2 },
        isFailing: true,
        needsLastDate: true,
        needsFirstDay: true,
      },
      'In a composite it counts as 0 %; fails; no credit is attempted; needs the first day of the period and no hours.',
    ],
    [
      { triesCredit: true, earnsCredit: true, countsInGpa: true, forbidsPercent: false, isOff: true },
      'In a composite it counts as missing; credit is attempted and earned; counts in the GPA; may be posted beside a percentage; is switched off.',
    ],
  ])('row %#', (effects, sentence) => expect(says(effects)).toBe(sentence));
});

describe('the labels of an effect', () => {
  const band = (label: string): BandBody => ({
    label,
    lowest: '0',
    points: null,
    passes: true,
    earnsCredit: true,
    descriptor: '',
    isOff: false,
  });
  const effect: Pick<ScaleEffectReply, 'moves'> = {
    moves: [
      { from: 'B', to: 'A', grades: 3 },
      { from: 'B', to: 'B', grades: 10 },
      { from: 'Q', to: 'Q', grades: 1 },
      { from: 'D', to: null, grades: 2 },
    ],
  };

  it('run from the top of the scale down, then those it does not know, then none', () => {
    const labels = effectLabels(effect as ScaleEffectReply, ['A', 'B', 'C', 'D'].map(band));
    expect(labels).toEqual(['A', 'B', 'D', 'Q', null]);
  });

  it('have as many grades before and after as their row and column of the matrix', () => {
    const counts = ['A', 'B', 'D', 'Q', null].map((label) => countsOf(effect as ScaleEffectReply, label));
    expect(counts.map(({ before, after }) => [before, after])).toEqual([
      [0, 3],
      [13, 10],
      [2, 0],
      [1, 1],
      [0, 2],
    ]);
  });
});
