import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { expect, it } from 'vitest';
import type { RunningDemo } from '#demo';
import { atWombat } from './at-wombat.js';
import { patience, story } from './desk.js';
import { startDemo, startEmpty } from './wombats.js';

/* An empty Wombat takes in the whole demo district as a zip, and gives out the very same. */

let zip: Buffer;

const empty = atWombat(1, async () => {
  const demo = await startDemo();
  zip = await exportedFrom(demo);
  await demo.stop();
  return startEmpty();
});
const registrar = empty.seats[0]!;

/** What its registrar, the first of its people, gets as an export. */
async function exportedFrom({ address, people }: RunningDemo): Promise<Buffer> {
  const { username, password } = people[0]!;
  const headers = { 'content-type': 'application/json' };
  const body = JSON.stringify({ username, password });
  const session = await fetch(`${address}/api/session`, { method: 'POST', headers, body });
  const cookie = session.headers.getSetCookie()[0]!.split(';')[0]!;
  const answer = await fetch(`${address}/api/exchange/export?version=1.1`, { headers: { cookie } });
  return Buffer.from(await answer.arrayBuffer());
}

story('an empty Wombat', () => {
  it('says what brings it to life', async () => {
    await registrar.open('/sign-in');
    await registrar.type('Sign-in name', 'registrar');
    await registrar.type('Password', empty.wombat.people[0]!.password);
    await registrar.click('Sign in');
    await registrar.reads(/This Wombat is empty/);
    await registrar.isAccessible();
  });

  it('says of a file that is no zip what it needs', async () => {
    const path = join(empty.wombat.folder, 'rosters.csv');
    writeFileSync(path, 'sourcedId,title\n');
    await (await registrar.field('OneRoster zip')).sendKeys(path);
    await registrar.sees('rosters come as a zip of CSV files');
  });

  it('shows every row of a zip before anything is written, and takes it in whole', async () => {
    const path = join(empty.wombat.folder, 'district.zip');
    writeFileSync(path, zip);
    await (await registrar.field('OneRoster zip')).sendKeys(path);
    await registrar.reads(/district.zip brings 117,\d+ new rows; none is refused/);
    await registrar.isAccessible();
    await registrar.click('Import');
    // Half a minute of work for a machine that is all ours, and many times that for one that is shared.
    const isAtSchool = async () => /\/school\/\d+/.test(await registrar.driver.getCurrentUrl());
    await registrar.driver.wait(isAtSchool, 3 * patience);
    await registrar.sees('Port Elowen');
  });

  it('has its courses and periods, and goes on from there', async () => {
    await registrar.click('Courses');
    await registrar.reads(/Upper School offers \d+ courses/);
    await registrar.click('Calendar');
    await registrar.reads(/in 4 quarters/);
    await registrar.click('Students');
    await registrar.reads(/students of Port Elowen Upper School/);
    await registrar.clickOn('[aria-label="Students"] tbody tr');
    await registrar.reads(/has a GPA of none yet/);
    await registrar.isAccessible();
    await registrar.click('Exchange');
    await registrar.reads(/1 zip was imported so far/);
    await registrar.isAccessible();
  });

  it('gives out what it took in, byte for byte', async () => {
    const [before, after] = [unzipSync(zip), unzipSync(await exportedFrom(empty.wombat))];
    expect(Object.keys(after)).toEqual(Object.keys(before));
    for (const [name, content] of Object.entries(before))
      expect([name, strFromU8(after[name]!) === strFromU8(content)]).toEqual([name, true]);
  });
});
