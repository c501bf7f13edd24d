import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import ExcelJS from 'exceljs';
import { By, Key } from 'selenium-webdriver';
import { beforeAll, it } from 'vitest';
import { atDemo } from './at-wombat.js';
import { patience, story } from './desk.js';
import { startDemo, startDemoProcess } from './wombats.js';

/* A workbook as people make them, of two sections and two report items; and a large file whose server is killed. */

const files = '/school/1/period/4/files';

const { desk: registrar, place } = atDemo();
beforeAll(async () => {
  await registrar.open('/sign-in');
  await registrar.type('Sign-in name', 'morwenna');
  await registrar.type('Password', 'low-tide');
  await registrar.click('Sign in');
  await registrar.sees('Quarter 2');
});

async function putIn(name: string, bytes: Uint8Array | string) {
  const path = join(place.wombat.folder, name);
  writeFileSync(path, bytes);
  await registrar.open(files);
  await (await registrar.field('Export file')).sendKeys(path);
}

/** Clicks the row of a list in which this stands. */
async function chooseRow(words: string) {
  const path = By.xpath(`//tbody/tr[.//*[normalize-space()="${words}"] or td[normalize-space()="${words}"]]`);
  // Looked for anew until it takes the click: the list may be drawn again in between.
  await registrar.driver.wait(async () => {
    const [row] = await registrar.driver.findElements(path);
    return (
      row !== undefined &&
      (await row.click().then(
        () => true,
        () => false,
      ))
    );
  }, patience);
}

const demoFile = (name: string) => readFileSync(new URL(`../demo/files/${name}`, import.meta.url));
const numbersIn = (text: string) => [...new Set(text.match(/S\d{5}/g) ?? [])];

/** Titles over the table, a merged head, shares shown as percents, a formula, dates, a comma, a code, a blank, a twin. */
async function messyWorkbook(): Promise<Uint8Array> {
  const ecology = numbersIn(demoFile('tidal-ecology-1.csv').toString());
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet('Winter');
  sheet.addRow(['Port Elowen, winter export']);
  sheet.mergeCells('A1:E1');
  sheet.addRow([]);
  sheet.addRow(['Pupil', '', '', 'Marks']);
  sheet.mergeCells('A3:B3');
  sheet.mergeCells('D3:E3');
  sheet.addRow(['Number', 'Group', 'Handed in', 'Overall', 'Exam']);
  const values = [0.815, '86,4 %', { formula: '1-0.1', result: 0.9 }, 'INC', '', 1_500_000_000];
  values.forEach((value, at) => {
    const row = sheet.addRow([ecology[at], 'Tidal Ecology 1', new Date('2026-01-20T00:00:00Z'), value, 70 + at]);
    if (at === 0 || at === 2) row.getCell(4).numFmt = '0.0%';
  });
  sheet.addRow([ecology[6], 'Tidal Ecology 1', '', '77', '']);
  sheet.addRow([ecology[6], 'Tidal Ecology 1', '', '78', '']);
  sheet.addRow([numbersIn(demoFile('boatbuilding-1-with-faults.csv').toString('utf16le'))[1], 'BB/1', '', '64.5', '']);
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

story('a workbook as people make them', () => {
  it('is read by its own header, column by column, and every value says what it would do', async () => {
    await putIn('winter.xlsx', await messyWorkbook());
    await registrar.reads(/For Quarter 2 this file brings percentages of Quarter grade and Exam: 9 new and 0 changed/);
    await registrar.sees('the section in Group');
    await registrar.sees('winter.xlsx · XLSX');
    for (const words of ['1 section of the file is not known', 'not in the file:']) await registrar.sees(words);
    await registrar.isAccessible();
  });

  it('says in words why values are left out', async () => {
    await registrar.click('8 values');
    for (const words of [
      '“INC” is a label or a code; files bring percentages.',
      '1500000000 is not between 0 and 200.',
      'The same student is in row 12; neither is used.',
      'No section is called “BB/1”.',
    ])
      await registrar.sees(words);
  });

  it('learns what the file calls a section', async () => {
    await registrar.choose('Section for BB/1', 'Boatbuilding 1');
    await registrar.reads(/: 10 new/);
    await registrar.seesNot('is not known');
  });

  it('is accepted, stands in the grade sheets with its cell as the source, and brings nothing a second time', async () => {
    await registrar.click('Accept 10 percentages');
    await registrar.reads(/Imported for Quarter 2: 10 percentages are as in the file/);
    await registrar.click('Open the grade sheets');
    await chooseRow('Tidal Ecology 1');
    await registrar.reads(/Posting Quarter grade of Quarter 2 for Tidal Ecology 1/);
    for (const percent of ['81.5', '86.4', '90.0']) await registrar.sees(percent);
    await putIn('winter-again.xlsx', await messyWorkbook());
    await registrar.reads(/: 0 new and 0 changed/);
    await registrar.canPress('Accept', false);
    await registrar.click('Discard the file');
    await registrar.reads(/2 files are imported for Quarter 2/);
  });

  it('is taken back as a whole', async () => {
    await registrar.open(files);
    await chooseRow('winter.xlsx');
    await registrar.click('Undo the file');
    await registrar.reads(/This file was undone; none of its values count any more/);
  });
});

/** Last year's marks over this year's, in the second of two sheets. */
async function workbookOfTwo(): Promise<Uint8Array> {
  const ecology = numbersIn(demoFile('tidal-ecology-1.csv').toString());
  const workbook = new ExcelJS.Workbook();
  workbook.addWorksheet('Notes').addRow(['Ask about the field trip']);
  workbook
    .addWorksheet('Marks')
    .addRows([
      ['Pupil', 'Group', 'Last year'],
      [ecology[0], 'Tidal Ecology 1', 55],
      ['Number', 'Group', 'Overall'],
      ...ecology.slice(0, 4).map((number, at) => [number, 'Tidal Ecology 1', 71 + at]),
    ]);
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

story('a workbook whose sheet and header row are for a person to say', () => {
  it('brings nothing until a sheet is chosen, by key', async () => {
    await putIn('two.xlsx', await workbookOfTwo());
    await registrar.reads(/Choose the sheet of two\.xlsx that holds the grades/);
    await registrar.canPress('Accept', false);
    await registrar.tabTo(/^Sheet$/);
    await registrar.press('Marks');
    await registrar.reads(/^(?!Choose the sheet)/);
  });

  it('reads its columns from the row that was chosen, by key, and brings what stands beneath it alone', async () => {
    await registrar.tabTo(/^Row with the column names$/);
    await registrar.press('row 3');
    // Under the rows that are passed by on the way there the heads would be a student of a section of their own.
    await registrar.reads(/For Tidal Ecology 1 this file brings percentages of Quarter grade: 4 new and 0 changed\.$/);
    await registrar.canPress('Accept 4 percentages');
    await registrar.tabTo(/^Accept 4 percentages/, true);
    await registrar.press(Key.ENTER);
    await registrar.reads(/Imported for Tidal Ecology 1: 4 percentages are as in the file/);
  });
});

story('a large file', () => {
  const rows = 200_000;

  it('whose server is killed while it is planned goes on by itself, and misses no row', async () => {
    await place.wombat.end();
    const victim = await startDemoProcess(place.wombat.folder);
    place.wombat = victim;
    const lines = Array.from({ length: rows }, (_row, at) => `S${at},Tidal Ecology 1,${at % 101}`);
    await putIn('large.csv', `Number,Section,Total\n${lines.join('\n')}\n`);
    await registrar.reads(/Say what the columns mean/);
    await registrar.choose('Section', 'the section in Section');
    await registrar.choose('Id column', 'Number');
    await registrar.reads(/Planning large\.csv: [1-9]\d? %/);
    const { pathname } = new URL(await registrar.driver.getCurrentUrl());
    await victim.kill();
    place.wombat = await startDemo(victim.folder);
    await registrar.open(pathname);
    await registrar.reads(/Planning large\.csv|For Quarter 2/);
    await registrar.driver.wait(
      async () => /brings percentages of [^:]+: \d+ new/.test(await registrar.headline()),
      patience,
    );
    await registrar.sees('all 200,000');
    await registrar.sees('the first 500 are here');
  });
});
