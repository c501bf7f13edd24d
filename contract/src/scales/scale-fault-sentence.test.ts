import { expect, it } from 'vitest';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import { checkScale, type Band } from '#core/scales';
import { scaleFaultSentence } from './index.js';

const band = (label: string, lowest: string, points: string | null = null): Band => ({
  label,
  lowest: decimalOrThrow(lowest),
  points: points === null ? null : decimalOrThrow(points),
  passes: true,
  earnsCredit: true,
  descriptor: '',
  isOff: false,
});

it.each<[Band[], string[]]>([
  [[], ['A scale needs at least one band.']],
  [[band('', '0')], ['A band needs a label, such as B+.']],
  [[band('A', '50'), band('A', '0')], ['A is listed twice; each label may be used once.']],
  [[band('A', '50'), band('B', '50'), band('F', '0')], ['B and A both begin at 50; each cut-off may be used once.']],
  [[band('A', '101'), band('F', '0')], ['A begins at 101; a cut-off is from 0 to 100.']],
  [
    [band('A', '90'), band('B', '89.96'), band('F', '0')],
    ['No value can be B: rounded to 1 decimals, none lies between 89.96 and the next cut-off.'],
  ],
  [[band('A', '50', '1.0'), band('F', '0', '2.0')], ['F carries 2.0 grade points, no fewer than A above it.']],
  [
    [band('A', '50'), band('F', '5')],
    ['The lowest band, F, begins at 5; values below have no label. Let it begin at 0.'],
  ],
])('says what is wrong and what would be right (%#)', (bands, sentences) => {
  const meaning = { kind: 'percent', highestLevel: null, codes: ['INC'] } as const;
  expect(checkScale(bands, { digits: 1, rounding: roundHalfUp }, meaning).map(scaleFaultSentence)).toEqual(sentences);
});
