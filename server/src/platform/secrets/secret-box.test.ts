import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import type { OpenDatabase } from '../database/open-database.js';
import { SecretBox } from './secret-box.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wombat-secret-'));
});
afterEach(() => rmSync(folder, { recursive: true }));
const boxIn = (at: string | null) => new SecretBox({ folder: at } as OpenDatabase);

it('opens what it locked, also after a start, and never locks twice alike', () => {
  const locked = boxIn(folder).lock('reed & ink 🌊');
  expect(locked).not.toContain('reed');
  expect(boxIn(folder).open(locked)).toBe('reed & ink 🌊');
  expect(boxIn(folder).lock('reed & ink 🌊')).not.toBe(locked);
  expect(statSync(join(folder, 'key')).mode & 0o777).toBe(0o600);
});

it('opens nothing of another key or altered, and what was never locked as it is', () => {
  const other = mkdtempSync(join(tmpdir(), 'wombat-secret-'));
  const locked = boxIn(other).lock('reed');
  rmSync(other, { recursive: true });
  expect(boxIn(folder).open(locked)).toBeUndefined();
  expect(boxIn(folder).open(`${boxIn(folder).lock('reed').slice(0, -4)}AAA=`)).toBeUndefined();
  expect(boxIn(folder).open('locked:AAAA')).toBeUndefined();
  expect(boxIn(folder).open('plain')).toBe('plain');
});

it('on a database server has the key that is stated, and locks nothing without one', () => {
  expect(boxIn(null).lock('reed')).toBe('reed');
  process.env['WOMBAT_KEY'] = 'a long sentence';
  try {
    const locked = boxIn(null).lock('reed');
    expect([locked === 'reed', boxIn(null).open(locked)]).toEqual([false, 'reed']);
  } finally {
    delete process.env['WOMBAT_KEY'];
  }
});
