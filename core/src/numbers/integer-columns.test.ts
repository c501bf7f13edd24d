import fc from 'fast-check';
import { expect, it } from 'vitest';
import { IntegerColumns, readIntegers } from './integer-columns.js';

/** ASCII, without the encoder that core does not have. */
const bytesOf = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));

it('reads rows of whole numbers, the smallest and largest too', () => {
  expect(readIntegers(bytesOf('1\t-2\n2147483647\t-2147483648\n0\t10\n'), 2)).toEqual([
    Int32Array.of(1, 2_147_483_647, 0),
    Int32Array.of(-2, -2_147_483_648, 10),
  ]);
  expect(readIntegers(new Uint8Array(), 2)).toEqual([new Int32Array(), new Int32Array()]);
});

it('reads the same wherever the text is cut into pieces, and beyond the rows it had room for', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer(), fc.integer({ min: -9, max: 9 }), fc.nat()), { maxLength: 3000, size: 'max' }),
      fc.integer({ min: 1, max: 40 }),
      (rows, length) => {
        const text = bytesOf(rows.map((row) => `${row.join('\t')}\n`).join(''));
        const columns = new IntegerColumns(3);
        for (let at = 0; at < text.length; at += length) columns.take(text.subarray(at, at + length));
        const expected = [0, 1, 2].map((column) => Int32Array.from(rows, (row) => row[column]!));
        expect(columns.read()).toEqual(expected);
      },
    ),
    { numRuns: 30, seed: 20_260_121 },
  );
});
