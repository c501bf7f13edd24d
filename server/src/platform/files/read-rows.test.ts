import { describe, expect, it } from 'vitest';
import { parseTableOrThrow } from './parse-table.js';
import { readRows, textFormOf } from './read-rows.js';
import { writeSpreadsheet } from './spreadsheet.js';

/** What is read of a text that comes in pieces of so many bytes. */
async function readIn(text: string, size: number): Promise<string[][]> {
  const bytes = Buffer.from(text);
  async function* pieces() {
    for (let from = 0; from < bytes.length; from += size) yield bytes.subarray(from, from + size);
  }
  const read: string[][] = [];
  for await (const { before, rows } of readRows(pieces(), textFormOf(text, 'utf8'))) {
    expect(before).toBe(read.length);
    read.push(...rows.map((row) => [...row]));
  }
  return read.filter((row) => row.some((cell) => cell !== ''));
}

describe('rows end where a line ends', () => {
  const rows = [
    ['Number', 'Total', 'Remark'],
    ['S100', '80', 'said "so"'],
    ['S101', '81', 'over\nlines'],
    ['S102', '82', 'é 🌊'],
    ['S103', '83', ''],
  ];
  const lines = ['Number,Total,Remark', 'S100,80,"said ""so"""', 'S101,81,"over\nlines"', 'S102,82,é 🌊', 'S103,83,'];

  it.each([
    ['as Windows writes it', '\r\n'],
    ['as Unix writes it', '\n'],
    ['as old Macs wrote it', '\r'],
  ])('%s, wherever a piece is cut', async (_how, end) => {
    const text = lines.join(end) + end;
    for (let size = 1; size <= text.length; size += 1) expect(await readIn(text, size)).toEqual(rows);
    expect(parseTableOrThrow(text, 'x.csv').rows).toEqual(rows);
  });

  it('in a file that was put together from several: none of its rows is lost', async () => {
    const text = `${lines[0]}\r\n${lines[1]}\r\n${lines[2]}\n${lines[3]}\r\n${lines[4]}\n`;
    for (const size of [1, 2, 7, text.length]) expect(await readIn(text, size)).toEqual(rows);
    expect(parseTableOrThrow(text, 'x.csv').rows).toEqual(rows);
  });
});

it('what goes out so that no spreadsheet takes it for a formula comes back as it was', () => {
  const rows = [['Title', 'Remark'], ['+1 Maths', '=SUM(A1)'], ['-', '@home'], ["'s Gravenhage", "90's"]]; // prettier-ignore
  const text = writeSpreadsheet('csv', 'Courses', rows).toString();
  expect(text).toContain("'+1 Maths");
  expect(parseTableOrThrow(text.replace('\uFEFF', ''), 'courses.csv').rows).toEqual(rows);
});
