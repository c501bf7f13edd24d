import { describe, expect, it } from 'vitest';
import { newCode, type SpecialCode } from '#core/codes';
import { bodyOfCode } from '#contract/codes';
import type { BandBody, ScaleEffectReply } from '#contract/scales';
import { codeSentence } from '../codes/code-sentence';
import { countsOf, effectLabels } from './effect/effect-labels';

describe('the effects of a code in one sentence', () => {
  const says = (effects: Partial<SpecialCode>) => codeSentence(bodyOfCode(newCode('XYZ', 'Any', effects)));
  it.each<[Partial<SpecialCode>, string]>([
    [{}, 'As a part is no grade yet; touches no credit.'],
    [{ asPart: 'leaves', onTranscript: false }, 'As a part is left out; touches no credit; stays off the transcript.'],
    [
      { asPart: 'blocks', triesCredit: true, needsLastDate: true, lapsesInto: 'F', lapsesAfterDays: 30 },
      'As a part makes it incomplete; tries credit without earning it; needs a last date; turns into F after 30 days.',
    ],
    [
      {
        asPart: 'counts',
        countsAs: { units: 0n, digits: 2 },
        isFailing: true,
        needsLastDate: true,
        needsFirstDay: true,
      },
      'As a part counts as 0 %; fails; touches no credit; needs the first day of the period and no hours.',
    ],
    [
      { triesCredit: true, earnsCredit: true, countsInGpa: true, forbidsPercent: false, isOff: true },
      'As a part is no grade yet; earns credit; counts in the GPA; may stand beside a percent; is switched off.',
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
