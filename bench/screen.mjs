// What a person feels in a real browser: from a key in the largest grade sheet to the frame that shows it, against the limit
// and against a page with nothing but a field; and the term line of every screen, against one bare query.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { By, Key, until } from 'selenium-webdriver';
import { demoPassword } from '#demo';
import { TermLineService } from '#server/term-line';
import { openChromium } from '../scripts/chromium.mjs';
import { paired } from './support/median.mjs';
import { onDemo } from './support/demo-database.mjs';

const program = fileURLToPath(new URL('../demo/dist/start-demo.js', import.meta.url));
const mostMilliseconds = 50;
const rowsTyped = 40;
const patience = 60_000;

export const measurements = [
  {
    what: 'from a key in the largest grade sheet to the frame that shows it, 95th percentile',
    against: `the limit of ${mostMilliseconds} ms`,
    limit: 1,
    measure: async () => ({ ours: at((await keys()).sheet, 0.95), peer: mostMilliseconds }),
  },
  {
    what: 'the same, median',
    against: 'a page with nothing but a field',
    limit: 2,
    measure: async () => ({ ours: at((await keys()).sheet, 0.5), peer: at((await keys()).empty, 0.5) }),
  },
  {
    what: 'the term line of a year whose set-up stands',
    against: 'one query for what is posted in its periods',
    limit: 3,
    measure: termLine,
  },
];

const at = (times, part) => times.toSorted((a, b) => a - b)[Math.floor((times.length - 1) * part)];

let once;
const keys = () => (once ??= measureKeys());

/** Milliseconds from each key to the frame after it, on the largest sheet and on an empty page, in one browser. */
async function measureKeys() {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, PORT: '0', WOMBAT_DATA: folder, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise((resolve) => {
    let printed = '';
    child.stdout.on('data', (piece) => {
      printed += piece;
      const found = /http:\/\/localhost:\d+/.exec(printed)?.[0];
      if (found) resolve(found);
    });
  });
  const { driver, close } = await openChromium();
  try {
    await driver.get(address);
    const [name, password] = await driver.wait(async () => {
      const fields = await driver.findElements(By.css('form input'));
      return fields.length === 2 ? fields : null;
    }, patience);
    await name.sendKeys('morwenna');
    await password.sendKeys(demoPassword, Key.ENTER);
    await driver.wait(until.urlMatches(/period\/\d+/), patience);
    await driver.get(address + (await driver.executeAsyncScript(addressOfLargestSheet)));
    const grid = await driver.wait(until.elementLocated(By.css('[role=grid]')), patience);
    await driver.findElement(By.css('[role=gridcell]')).click();
    const sheet = await typed(driver, grid);
    await driver.get('data:text/html,<title>Empty</title><textarea autofocus></textarea>');
    const empty = await typed(driver, await driver.findElement(By.css('textarea')));
    return { sheet, empty };
  } finally {
    await close();
    child.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A percent in each row and Enter, as a teacher types it; the browser itself notes when each key was followed by a frame. */
async function typed(driver) {
  await driver.executeScript(noteFrames);
  for (let row = 0; row < rowsTyped; row++)
    for (const key of [...String(60 + (row % 40)), Key.ENTER]) await driver.actions().sendKeys(key).perform();
  await driver.sleep(200);
  return driver.executeScript('return window.keyToFrame');
}

const noteFrames = `
  window.keyToFrame = [];
  addEventListener('keydown', ({ timeStamp }) => requestAnimationFrame(() => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => window.keyToFrame.push(performance.now() - timeStamp);
    port2.postMessage(null); // comes after the frame was painted
  }), { capture: true });`;

const addressOfLargestSheet = `
  const [done] = arguments;
  const [, school, period] = /school\\/(\\d+)\\/period\\/(\\d+)/.exec(location.pathname);
  fetch('/api/grade-sheets?period=' + period).then((reply) => reply.json()).then((lists) => {
    const sheets = lists.flatMap(({ itemId, sheets }) => sheets.map((sheet) => ({ itemId, ...sheet })));
    const { sectionId, itemId } = sheets.toSorted((a, b) => b.expected - a.expected)[0];
    done('/school/' + school + '/period/' + period + '/grade-sheets/' + sectionId + '/' + itemId);
  });`;

function termLine() {
  return onDemo((context, { pool }) => {
    const service = context.get(TermLineService, { strict: false });
    const registrar = {
      personId: 1,
      username: 'registrar',
      name: 'Registrar',
      grants: [{ role: 'registrar', schoolId: null }],
    };
    return paired(
      21,
      () => service.ofSchoolOrThrow(registrar, 1),
      () =>
        pool.query(`
          SELECT g.period_id, e.section_id, count(*) FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
          JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id
          WHERE c.school_id = 1 GROUP BY g.period_id, e.section_id`),
    );
  });
}
