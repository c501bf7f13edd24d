// npm run screenshots: every main view of a fresh demo district at 1280 × 800, into docs/screenshots.
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { By, Key, until } from 'selenium-webdriver';
import { openChromium } from './chromium.mjs';
import { fetchChromium } from './fetch-chromium.mjs';
import { build, install, root } from './steps.mjs';

install();
fetchChromium();
build();

const out = join(root, 'docs/screenshots');
const folder = mkdtempSync(join(tmpdir(), 'wombat-screenshots-'));
mkdirSync(out, { recursive: true });
const wombat = spawn(process.execPath, [join(root, 'demo/dist/start-demo.js')], {
  env: { ...process.env, PORT: '0', WOMBAT_DATA: folder, DATABASE_URL: '' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
const address = await new Promise((resolve) =>
  wombat.stdout.on('data', (piece) => /http:\S+/.exec(piece) && resolve(/http:\S+/.exec(piece)[0])),
);
const { driver, close } = await openChromium();
const quarter2 = `${address}/school/1/period/4`;
/** Until nothing is loading any more, and what moves has come to rest. */
const settle = async () => {
  const isLoaded = async () => (await driver.findElements(By.css('[role=status][aria-label=Loading]'))).length === 0;
  await driver.sleep(300);
  await driver.wait(isLoaded, 30_000);
  await driver.sleep(900);
};
const see = (path) => driver.wait(until.elementLocated(By.xpath(path)), 15_000);
const click = async (name) =>
  (
    await see(`(//button[starts-with(normalize-space(),'${name}')] | //a[starts-with(normalize-space(),'${name}')])[1]`)
  ).click();
const open = async (place) => {
  await driver.get(`${quarter2}/${place}`);
  await see('//h1');
  await settle();
};
const picture = async (name) => {
  await settle();
  writeFileSync(join(out, `${name}.png`), await driver.takeScreenshot(), 'base64');
  console.log(name);
};
const press = (...keys) =>
  driver
    .actions()
    .sendKeys(...keys)
    .perform();
const upload = async (name) => {
  await open('files');
  await driver.findElement(By.css('input[type=file]')).sendKeys(join(root, 'demo/files', name));
  await see(`//button[starts-with(normalize-space(),'Accept')]`);
};

/** What came to the district in a week: a few people, a move, and rows that cannot be taken as they are. */
function rosterZip() {
  const user = (id, role, given, family, grades) =>
    `${id},active,2026-01-20T06:00:00Z,true,PEU,${role},${given.toLowerCase()},,${given},${family},,${id},${given.toLowerCase()}@port-elowen.example,,,,${grades},`;
  const stay = (id, at, who, role, from, to) =>
    `${id},active,2026-01-20T06:00:00Z,${at},PEU,${who},${role},,${from},${to}`;
  const table = {
    'manifest.csv': [
      'propertyName,value',
      'manifest.version,1.0',
      'oneroster.version,1.1',
      'file.users,delta',
      'file.enrollments,delta',
    ],
    'users.csv': [
      'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password',
      user('S90001', 'student', 'Isolde', 'Quayle', '10'),
      user('S90002', 'student', 'Corin', 'Teague', '11'),
      user('T90003', 'teacher', 'Ysella', 'Moon', ''),
      user('G90004', 'guardian', 'Bran', 'Quayle', ''),
      user('S90005', 'pupil', 'Nessa', 'Rowe', '9'),
    ],
    'enrollments.csv': [
      'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate',
      stay('e1', 'section-1', 'S90001', 'student', '2026-01-19', ''),
      stay('e2', 'section-2', 'S90001', 'student', '2026-01-19', ''),
      stay('e3', 'section-14', 'S90002', 'student', '2026-01-19', ''),
      stay('e4', 'section-3', 'S90009', 'student', '2026-01-19', ''),
      stay('e5', 'section-9000', 'S90002', 'student', '2026-01-19', ''),
      stay('e6', 'section-5', 'S90002', 'student', '2026-02-30', ''),
    ],
  };
  const files = Object.entries(table).map(([name, lines]) => [name, strToU8(`${lines.join('\r\n')}\r\n`)]);
  const path = join(folder, 'week-4.zip');
  writeFileSync(path, zipSync(Object.fromEntries(files)));
  return path;
}

try {
  await driver.get(`${address}/sign-in`);
  await see(`//h2[contains(.,'demo district')]`);
  await click('Morwenna Oake');
  await see('//h1');
  await picture('today');

  await open('scales');
  const grip = await see(`//button[@aria-label='Cut-off of A-']`);
  await grip.sendKeys(...Array(5).fill(Key.ARROW_LEFT));
  await picture('scales');
  await click('Discard draft');
  await open('calendar');
  await picture('calendar');
  await open('people');
  await picture('people');
  await open('courses');
  await picture('courses');
  await open('sections');
  await picture('sections');
  await open('calculation?policy=4');
  await (await see(`//select[@aria-label='Drop lowest of Tests']/option[@value='1']`)).click();
  await see(`//p[contains(.,'The draft changes')]`);
  await picture('calculation');
  await click('Discard draft');
  await open('grade-books/13');
  await (await see(`(//*[@role='rowheader']//button)[3]`)).click();
  await picture('grade-book');
  await open('report-items');
  await (await see(`//select[@aria-label='Length']/option[@value='year']`)).click();
  await picture('report-items');

  await open('matches?view=group');
  await click('Accept 10 proposals');
  await see(`//h1[contains(.,'10 group names')]`);
  await driver.sleep(10_500); // until the notice is gone
  await picture('matches');

  await driver.get(`${address}/school/3/period/23/runs/1`);
  await see(`//h1[contains(.,'hold back')]`);
  await picture('runs');
  await open('exchange');
  await driver.findElement(By.css('input[type=file]')).sendKeys(rosterZip());
  await see(`//h1[contains(.,'brings')]`);
  await picture('exchange');

  await upload('three-sections-with-exams.csv');
  await picture('files');
  await click('Discard the file');
  await upload('boatbuilding-1-with-faults.csv');
  await click('Accept');
  await see(`//button[starts-with(normalize-space(),'Open the grade sheet')]`);
  await click('Open the grade sheet');
  await click('Use computed for');
  const labels = await (
    await see(`//*[@role='columnheader'][starts-with(normalize-space(),'Label')]`)
  ).getAttribute('aria-colindex');
  await (await see(`//*[@role='row'][@aria-rowindex='3']/*[@role='gridcell'][@aria-colindex='${labels}']`)).click();
  await press('inc', Key.ENTER);
  await driver.sleep(10_500); // until the notice of the file is gone
  await picture('grade-sheet');
  await (await see(`(//*[@role='row'][@aria-rowindex='2']/*[@role='gridcell'])[1]`)).click();
  await press('w');
  await press(Key.ESCAPE);
  await driver.executeScript(`localStorage.removeItem('wombat-mark-drafts')`);

  await open('findings');
  await click('Audit now');
  await see(`//section[@aria-label='Evidence']`);
  await click('Percent and label disagree');
  await picture('findings');
  await open('seal');
  await picture('seal');
  await open('students?text=S13409');
  await (await see('//tbody/tr')).click();
  await see(`//article[@aria-label='Transcript']`);
  await press('w');
  await picture('transcript');
  await open('log');
  await (await see('//tbody/tr[@aria-rowindex="2"]')).click();
  await see(`//h4[.='All changes of it']`);
  await picture('log');
  await open('board');
  await picture('board');
} finally {
  await close();
  wombat.kill('SIGTERM');
  await new Promise((resolve) => wombat.once('exit', resolve));
  rmSync(folder, { recursive: true, force: true });
}
