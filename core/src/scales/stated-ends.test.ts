import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { checkStatedEnds, endFaultRange, readStatedScale, settleStatedEnds, type StatedBand } from './index.js';

const stated = (text: string): StatedBand[] =>
  text.split(', ').map((row) => {
    const [label, lowest, highest] = row.split(' ') as [string, string, string];
    return { label, lowest: decimalOrThrow(lowest), highest: decimalOrThrow(highest) };
  });
const found = (text: string, digits: number) =>
  checkStatedEnds(stated(text), digits).map(
    (fault) => `${fault.kind} ${fault.lower ?? ''}${fault.upper} ${endFaultRange(fault)}`,
  );

describe('a scale that states both ends', () => {
  it.each<[string, string, number, string[]]>([
    ['leaves nothing out at whole percents', 'A 90 100, B 80 89, F 0 79', 0, []],
    ['leaves a gap at one decimal', 'A 90 100, B 80 89, F 0 79.9', 1, ['gap BA 89.1 to 89.9']],
    ['names a gap of one value', 'A 90 100, B 80 89.98, F 0 79.99', 2, ['gap BA 89.99']],
    ['shares a value at both ends', 'A 90 100, B 80 90, F 0 79', 0, ['overlap BA 90']],
    ['overlaps over several', 'A 88 100, B 80 90, F 0 79', 0, ['overlap BA 88 to 90']],
    ['ends below 100', 'A 90 99, F 0 89', 0, ['top-short A 100']],
    ['has its ends crossed', 'A 90 100, B 89 80, F 0 79', 0, ['ends-crossed B 80 to 89', 'gap FB 80 to 88']],
  ])('%s', (_what, text, digits, expected) => expect(found(text, digits)).toEqual(expected));

  it.each([
    ['A 90 100, B 80 89', 1, 'upper', 'B 80-89.9'],
    ['A 90 100, B 80 89', 1, 'lower', 'A 89.1-100'],
    ['A 88 100, B 80 90', 0, 'upper', 'B 80-87'],
    ['A 88 100, B 80 90', 0, 'lower', 'A 91-100'],
  ] as const)('%s at %i digits, settled for the %s band, makes %s', (text, digits, keeps, expected) => {
    const bands = stated(text);
    const settled = settleStatedEnds(bands, checkStatedEnds(bands, digits)[0]!, keeps, digits);
    expect(checkStatedEnds(settled, digits)).toEqual([]);
    expect(
      settled.map(({ label, lowest, highest }) => `${label} ${formatDecimal(lowest)}-${formatDecimal(highest)}`),
    ).toContain(expected);
  });
});

describe('reading a scale out of a table', () => {
  const read = (table: string) => {
    const { lines, unreadable } = readStatedScale(table.split('\n').map((row) => row.split('\t')));
    const show = (value: Parameters<typeof formatDecimal>[0] | null) => value && formatDecimal(value);
    return [
      ...lines.map((line) => [line.label, show(line.lowest), show(line.highest), show(line.points), line.descriptor]),
      ...unreadable,
    ];
  };
  it.each<[string, string, unknown[]]>([
    [
      'label, both ends, points and a word',
      'Grade\tFrom\tTo\tPoints\nA\t90\t100\t4.0\tExcellent',
      [['A', '90', '100', '4.0', 'Excellent']],
    ],
    ['a range in one cell', 'B+\t87–89.9\t3,3', [['B+', '87', '89.9', '3.3', '']]],
    ['ends the other way round, with percent signs', 'C\t79 %\t70 %', [['C', '70', '79', null, '']]],
    ['a lower end with points', 'A\t93\t4.0', [['A', '93', null, '4.0', '']]],
    [
      'level numbers as labels',
      '4\t90\t100\n3\t75\t89',
      [
        ['4', '90', '100', null, ''],
        ['3', '75', '89', null, ''],
      ],
    ],
    [
      'from and points, where the lowest says 0 and 0',
      'Label\tFrom\tPoints\nA\t90\t4.0\nF\t0\t0',
      [
        ['A', '90', null, '4.0', ''],
        ['F', '0', null, '0', ''],
      ],
    ],
    [
      'the same without a heading',
      'A\t90\t4.0\nF\t0\t0',
      [
        ['A', '90', null, '4.0', ''],
        ['F', '0', null, '0', ''],
      ],
    ],
    [
      'numbers as labels beside words',
      '4\t3.5\tBeyond what is asked\n1\t0\tAt the beginning',
      [
        ['4', '3.5', null, null, 'Beyond what is asked'],
        ['1', '0', null, null, 'At the beginning'],
      ],
    ],
    ['a row without a number', 'A\t90\nnote', [['A', '90', null, null, ''], { row: 2, reason: 'no-lowest' }]],
  ])('%s', (_what, table, expected) => expect(read(table)).toEqual(expected));
});
