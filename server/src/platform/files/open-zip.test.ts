import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { isZip, openZipOrThrow } from './open-zip.js';

const zipOf = (files: Record<string, string>, level: 0 | 6 = 6) =>
  Buffer.from(
    zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])), { level }),
  );

describe('a zip', () => {
  it('lists its files and gives their content', async () => {
    const bytes = zipOf({ 'a.csv': 'one', 'folder/b.csv': 'two' });
    const zip = await openZipOrThrow(bytes, 'x.zip');
    expect(isZip(bytes)).toBe(true);
    expect(zip.paths).toEqual(['a.csv', 'folder/b.csv']);
    expect(String(await zip.read('folder/b.csv'))).toBe('two');
    expect(zip.read('c.csv')).toBeUndefined();
  });

  it.each([
    ['is cut off', zipOf({ 'a.csv': 'one' }).subarray(0, -8), 'a damaged or incomplete zip'],
    ['leads out of itself', zipOf({ '../a.csv': 'one' }), 'a zip with "../a.csv", which leads out of it'],
    ['names a place of the machine', zipOf({ '/etc/a': 'one' }), 'a zip with "/etc/a", which leads out of it'],
  ])('that %s is refused before it is read', async (_name, bytes, found) => {
    await expect(openZipOrThrow(bytes, 'x.zip')).rejects.toMatchObject({ code: 'file-kind', data: { found } });
  });

  it('of too many files is refused', async () => {
    const many = Object.fromEntries(Array.from({ length: 5001 }, (_none, at) => [`${at}.csv`, '']));
    await expect(openZipOrThrow(zipOf(many), 'x.zip')).rejects.toMatchObject({ code: 'file-unpacks-too-large' });
  });

  it('whose content was altered fails where it is read', async () => {
    const bytes = zipOf({ 'a.csv': 'S10427;91' }, 0);
    bytes.write('19', bytes.indexOf('91'));
    await expect((await openZipOrThrow(bytes, 'x.zip')).read('a.csv')).rejects.toThrow('does not match its checksum');
  });

  it('that holds more than its list says fails where it is read', async () => {
    const bytes = zipOf({ 'a.csv': 'x'.repeat(100_000) });
    bytes.writeUInt32LE(10, bytes.indexOf(Buffer.from('504b0102', 'hex')) + 24);
    await expect((await openZipOrThrow(bytes, 'x.zip')).read('a.csv')).rejects.toThrow(/too many bytes/);
  });
});
