import iconv from 'iconv-lite';
import { describe, expect, it } from 'vitest';
import { decodeTextOrThrow } from './decode-text.js';
import { parseTableOrThrow } from './parse-table.js';

const text = 'Número;Total\nS1;86,4\nS2;90\n';

describe('the text of a file', () => {
  it.each<[string, Buffer, string]>([
    ['UTF-8', Buffer.from(text), 'UTF-8'],
    ['UTF-8 with its mark', Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from(text)]), 'UTF-8'],
    [
      'UTF-16, small end first, with its mark',
      Buffer.concat([Buffer.from([0xff, 0xfe]), iconv.encode(text, 'utf-16le')]),
      'UTF-16',
    ],
    [
      'UTF-16, big end first, with its mark',
      Buffer.concat([Buffer.from([0xfe, 0xff]), iconv.encode(text, 'utf-16be')]),
      'UTF-16',
    ],
    ['UTF-16 without a mark', iconv.encode(text, 'utf-16le'), 'UTF-16'],
    ['UTF-16 the other way without a mark', iconv.encode(text, 'utf-16be'), 'UTF-16'],
    ['Windows-1252', iconv.encode(text, 'windows-1252'), 'Windows-1252'],
  ])('in %s is read', (_what, bytes, encoding) => {
    expect(decodeTextOrThrow(bytes, 'a.csv')).toEqual({ text, encoding });
  });

  it.each([
    [
      'a table of a web page under the name of a spreadsheet',
      Buffer.from('<table><tr><td>S1</td></tr></table>'),
      'a web page',
    ],
    [
      'a workbook with a password',
      Buffer.concat([Buffer.from('d0cf11e0a1b11ae1', 'hex'), Buffer.from('EncryptedPackage', 'utf16le')]),
      'a workbook with a password',
    ],
    ['an old spreadsheet', Buffer.from('d0cf11e0a1b11ae1', 'hex'), 'an old spreadsheet or document'],
  ])('is none in %s, and it says so', (_what, bytes, found) => {
    expect(() => decodeTextOrThrow(bytes, 'a.xls')).toThrow(
      expect.objectContaining({ code: 'file-kind', data: expect.objectContaining({ found }) }),
    );
  });

  it('that holds the sign for what could not be read is left as it is', () => {
    expect(decodeTextOrThrow(Buffer.from('a\uFFFDb,c\n'), 'a.csv').encoding).toBe('UTF-8');
  });
});

describe('the table of a text', () => {
  it.each([
    ['commas', 'Id,Total\nS1,80\n'],
    ['semicolons', 'Id;Total\nS1;80\n'],
    ['tabs', 'Id\tTotal\nS1\t80\n'],
    ['bars', 'Id|Total\nS1|80\n'],
  ])('with %s is told apart', (_what, table) => {
    expect(parseTableOrThrow(table, 'a.csv')).toMatchObject({
      headerRow: 1,
      header: ['Id', 'Total'],
      rows: [
        ['Id', 'Total'],
        ['S1', '80'],
      ],
    });
  });

  // RFC 4180, section 2, rules 5 to 7: commas, quotation marks and line breaks inside quotation marks.
  it('keeps what stands inside quotation marks', () => {
    const { rows } = parseTableOrThrow(
      'Id,Remark\r\nS1,"one, two"\r\nS2,"said ""so"""\r\nS3,"over\nlines"\r\n',
      'a.csv',
    );
    expect(rows.slice(1).map(([, remark]) => remark)).toEqual(['one, two', 'said "so"', 'over\nlines']);
  });

  it('counts rows from the first line of the file, title lines and blank ones too', () => {
    const { headerRow, rows } = parseTableOrThrow('Tidal Ecology 1\n\nId,Total,Remark\nS1,80,\n', 'a.csv');
    expect([headerRow, rows.length]).toEqual([3, 4]);
  });
});

it('two columns with decimal commas and a title line are still told apart by their semicolons', () => {
  const { header, headerRow } = parseTableOrThrow('Tidal Ecology 1\n\nId;Total\nS1;80,5\nS2;90,25\n', 'a.csv');
  expect([header, headerRow]).toEqual([['Id', 'Total'], 3]);
});
