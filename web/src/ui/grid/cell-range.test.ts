import { describe, expect, it } from 'vitest';
import { blockOfRange, blockOfText, textsOfBlock, textsOfFillDown } from './cell-range';

const range = { fromRow: 1, toRow: 2, fromColumn: 3, toColumn: 4 };
const textAt = (row: number, column: number) => `${row}/${column}`;

describe('a stretch of cells', () => {
  it('a block from the clipboard is laid from its corner on, beyond the range too', () => {
    expect(textsOfBlock(range, blockOfText('a\tb\tc\r\nd\te\tf\r\n'))).toEqual([
      [1, 3, 'a'],
      [1, 4, 'b'],
      [1, 5, 'c'],
      [2, 3, 'd'],
      [2, 4, 'e'],
      [2, 5, 'f'],
    ]);
  });

  it('one cell fills all of it', () => {
    expect(textsOfBlock(range, [['x']])).toEqual([
      [1, 3, 'x'],
      [1, 4, 'x'],
      [2, 3, 'x'],
      [2, 4, 'x'],
    ]);
  });

  it('its first row fills those below', () => {
    expect(textsOfFillDown(range, textAt)).toEqual([
      [2, 3, '1/3'],
      [2, 4, '1/4'],
    ]);
    expect(textsOfFillDown({ ...range, toRow: 1 }, textAt)).toEqual([]);
  });

  it('goes out as it comes in', () => {
    expect(blockOfText(blockOfRange(range, textAt))).toEqual([
      ['1/3', '1/4'],
      ['2/3', '2/4'],
    ]);
    expect(blockOfText('')).toEqual([['']]);
  });

  it.each([
    [
      'a cell with a line break',
      '91\t"Good work\nkeep going"\n82\tfine',
      [
        ['91', 'Good work\nkeep going'],
        ['82', 'fine'],
      ],
    ],
    ['a cell with a tab and quotes', '"a\tb"\t"say ""no"" "\r\n', [['a\tb', 'say "no" ']]],
    [
      'a quote that is none',
      '"90\tB\n80\tC',
      [
        ['"90', 'B'],
        ['80', 'C'],
      ],
    ],
    ['blank cells and rows', '\tx\n\n1', [['', 'x'], [''], ['1']]],
  ])('%s comes from a spreadsheet as it stands there', (_, text, block) => {
    expect(blockOfText(text)).toEqual(block);
  });

  it('what has tabs, quotes or breaks comes back as it went out', () => {
    const texts = [
      ['a\tb', 'c\nd'],
      ['"', ' e '],
    ];
    const out = blockOfRange(
      { fromRow: 0, toRow: 1, fromColumn: 0, toColumn: 1 },
      (row, column) => texts[row]![column]!,
    );
    expect(blockOfText(out)).toEqual(texts);
  });
});
