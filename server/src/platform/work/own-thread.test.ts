import { afterEach, beforeEach, expect, it } from 'vitest';
import { Refusal } from '../errors/refusal.js';
import { writeWorkbook } from '../files/workbook/write-workbook.js';
import { OwnThread } from './own-thread.js';

const tooMuch = new Refusal('file-kind', { name: 'a.xlsx', found: 'too large', hint: '' });
const script = new URL('../files/workbook/workbook-worker.js', import.meta.url);
const book = writeWorkbook('Grades', [['Id', 'Total']]);

let thread: OwnThread;
beforeEach(() => {
  thread = new OwnThread(script, { megabytes: 256, seconds: 60, tooMuch });
});
afterEach(() => thread.close());

it('answers one question after the other, and what is refused there is refused here', async () => {
  const [good, bad, again] = [book, Buffer.from('no zip'), book].map((bytes) =>
    thread.ask('read', bytes, 'a.xlsx', null),
  );
  await expect(good).resolves.toMatchObject({ sheet: 'Grades' });
  await expect(bad).rejects.toMatchObject({ name: 'Refusal', code: 'file-kind', data: { name: 'a.xlsx' } });
  await expect(again).resolves.toMatchObject({ sheet: 'Grades' });
});

it('that ended refuses at once whatever was asked and is asked', async () => {
  const asked = thread.ask('read', book, 'a.xlsx', null);
  await thread.close();
  await expect(asked).rejects.toBe(tooMuch);
  expect(thread.hasEnded).toBe(true);
  await expect(thread.ask('read', book, 'a.xlsx', null)).rejects.toBe(tooMuch);
});
