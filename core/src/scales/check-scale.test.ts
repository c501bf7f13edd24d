import { describe, expect, it } from 'vitest';
import { decimalOrThrow, roundHalfUp } from '#core/numbers';
import type { Band, ScaleMeaning } from './index.js';
import { checkScale } from './index.js';
import { letterBands } from '../../test/letter-scale.fixture.js';

const tenths = { digits: 1, rounding: roundHalfUp };
const band = (label: string, lowest: string, points: string | null = null): Band => ({
  label,
  lowest: decimalOrThrow(lowest),
  points: points === null ? null : decimalOrThrow(points),
  passes: true,
  earnsCredit: true,
  descriptor: '',
  isOff: false,
});
const percents: ScaleMeaning = { kind: 'percent', highestLevel: null, codes: ['INC'] };
const codes = (bands: Band[], digits = 1) =>
  checkScale(bands, { ...tenths, digits }, percents).map(({ code, index, severity }) => [code, index, severity]);

describe('checkScale', () => {
  it('warns that two letters of the published table carry the same points, and finds nothing else', () => {
    expect(codes([...letterBands])).toEqual([['points-do-not-fall', 1, 'warns']]);
  });

  it.each<[string, Band[], unknown[]]>([
    ['an empty scale', [], [['scale-empty', null, 'blocks']]],
    ['an empty label', [band(' ', '0')], [['label-empty', 0, 'blocks']]],
    ['a label twice, in any case', [band('A', '50'), band('a', '0')], [['label-twice', 1, 'blocks']]],
    [
      'two equal cut-offs, however written',
      [band('A', '50.0'), band('B', '50'), band('F', '0')],
      [['cut-off-twice', 1, 'blocks']],
    ],
    ['a cut-off above 100', [band('A', '100.1'), band('F', '0')], [['cut-off-outside', 0, 'blocks']]],
    ['a negative cut-off', [band('A', '50'), band('F', '-1')], [['cut-off-outside', 1, 'blocks']]],
    ['a bottom above 0', [band('A', '50'), band('F', '1')], [['bottom-above-0', null, 'blocks']]],
    [
      'cut-offs out of order',
      [band('A', '50'), band('B', '60'), band('F', '0')],
      [['cut-off-out-of-order', 1, 'warns']],
    ],
    ['a label that is a code, in any case', [band('inc', '50'), band('F', '0')], [['label-is-code', 0, 'blocks']]],
    ['a label that reads like a percent', [band('95', '50'), band('F', '0')], [['label-is-number', 0, 'blocks']]],
    [
      'a label without points beside one with',
      [band('A', '50', '4'), band('F', '0')],
      [['points-missing', 1, 'warns']],
    ],
    ['points that rise downwards', [band('A', '50', '3'), band('F', '0', '4')], [['points-do-not-fall', 1, 'warns']]],
  ])('finds %s', (_what, bands, expected) => expect(codes(bands)).toEqual(expected));

  it('finds a band that no value reaches once values are rounded', () => {
    const bands = [band('A', '90'), band('B', '89.96'), band('F', '0')];
    expect(codes(bands, 1)).toEqual([['band-unreachable', 1, 'blocks']]);
    expect(codes(bands, 2)).toEqual([]);
  });

  it('asks nothing of a band that is switched off, but keeps its label from being given twice', () => {
    const off = { ...band('D', '89.96'), isOff: true };
    expect(codes([band('A', '90'), off, band('F', '0')])).toEqual([]);
    expect(codes([band('A', '90'), off, band('D', '50'), band('F', '0')])).toEqual([['label-twice', 2, 'blocks']]);
  });

  it('reads cut-offs of a level scale as levels, whose labels may be numbers', () => {
    const levels = { ...percents, kind: 'level', highestLevel: decimalOrThrow('4') } as const;
    const found = (bands: Band[]) => checkScale(bands, tenths, levels).map(({ code, data }) => [code, data['top']]);
    expect(found([band('4', '3.5'), band('3', '2.5'), band('1', '0')])).toEqual([]);
    expect(found([band('4', '90'), band('1', '0')])).toEqual([['cut-off-outside', '4']]);
  });

  it('a scale of choices has every cut-off or none', () => {
    const choice = (label: string, lowest: string | null) => ({
      ...band(label, '0'),
      lowest: lowest && decimalOrThrow(lowest),
    });
    const found = (...bands: ReturnType<typeof choice>[]) =>
      checkScale(bands as Band[], tenths, { ...percents, kind: 'choice' }).map(({ code, index }) => [code, index]);
    expect(found(choice('S', null), choice('U', null))).toEqual([]);
    expect(found(choice('S', '60'), choice('U', null))).toEqual([
      ['cut-off-missing', 1],
      ['bottom-above-0', null],
    ]);
    expect(found(choice('S', '60'), choice('U', '0'))).toEqual([]);
  });
});
