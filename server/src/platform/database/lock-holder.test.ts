import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it, onTestFinished } from 'vitest';
import { claimFromGone, holderOf, writeHolder } from './lock-holder.js';

let folder: string;
let own: string[];
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wombat-holder-'));
  const made = folder;
  onTestFinished(() => rmSync(made, { recursive: true }));
  writeHolder(folder);
  own = readFileSync(join(folder, 'wombat.pid'), 'utf8').split('\n');
});

/** Writes down a holder that began at another time, or elsewhere. */
function heldBy(pid: number, { boot, container, began }: { boot?: string; container?: string; began?: string }): void {
  const [ownBoot, ownContainer, ownBegan] = own[1]!.split(' ');
  const life = [boot ?? ownBoot, container ?? ownContainer, began ?? ownBegan].join(' ');
  writeFileSync(join(folder, 'wombat.pid'), `${pid}\n${life}\n`);
}

/** Above what Linux gives out (proc(5), pid_max). */
const noProcess = 5_000_000;

describe('a data folder may be taken at once from a process', () => {
  it.each([
    ['that runs no more', noProcess, {}, true],
    ['whose number another has since', process.pid, { began: '1' }, true],
    ['but not while it runs', process.pid, {}, false],
    ['nor of another machine', noProcess, { boot: 'another' }, false],
    ['nor of another container', noProcess, { container: 'pid:[1]' }, false],
  ] as const)('%s', (_which, pid, place, may) => {
    heldBy(pid, place);
    expect(claimFromGone(folder)).toBe(may);
    expect(readdirSync(folder)).toEqual(may ? [] : ['wombat.pid']);
  });

  it('nor where nobody says who it was', () => {
    writeFileSync(join(folder, 'wombat.pid'), String(noProcess));
    expect([holderOf(folder), claimFromGone(folder)]).toEqual([String(noProcess), false]);
    rmSync(join(folder, 'wombat.pid'));
    expect([holderOf(folder), claimFromGone(folder)]).toEqual(['unknown', false]);
  });

  it('by one alone: who asks next finds it taken', () => {
    heldBy(noProcess, {});
    expect([claimFromGone(folder), claimFromGone(folder)]).toEqual([true, false]);
  });
});
