import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { seedFile } from '#server/application';
import { openDatabase, type OpenDatabase } from '../database/open-database.js';
import { WorkQueue } from './work-queue.js';

let folder: string;
let database: OpenDatabase;
const queues: WorkQueue[] = [];
const queue = () => {
  const made = new WorkQueue(database);
  queues.push(made);
  return made;
};
const states = async (name: string) =>
  (await database.pool.query<{ state: string }>(`SELECT state::text FROM work.job WHERE name = $1`, [name])).rows.map(
    ({ state }) => state,
  );

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'wombat-queue-'));
  database = await openDatabase({ kind: 'folder', folder, seedFile });
});
afterEach(async () => {
  vi.useRealTimers();
  await Promise.all(queues.splice(0).map((each) => each.onApplicationShutdown()));
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('the queue of work', () => {
  it('gives each job to one of the servers that take it', async () => {
    const seen: object[] = [];
    const [one, other] = [queue(), queue()];
    for (const each of [one, other]) await each.take('shared', async (data) => void seen.push(data));
    for (const id of [1, 2, 3]) await one.ask('shared', { id });
    await expect.poll(() => seen.length, { timeout: 10_000 }).toBe(3);
    expect(new Set(seen.map((data) => JSON.stringify(data)))).toEqual(new Set(['{"id":1}', '{"id":2}', '{"id":3}']));
    await expect.poll(() => states('shared')).toEqual(['completed', 'completed', 'completed']);
  });

  it('tries a job again that failed, after a pause', async () => {
    const tries: number[] = [];
    const one = queue();
    await one.take('again', async () => {
      tries.push(Date.now());
      if (tries.length === 1) throw new Error('not now');
    });
    await one.ask('again', {});
    await expect.poll(() => tries.length, { timeout: 15_000 }).toBe(2);
    expect(tries[1]! - tries[0]!).toBeGreaterThanOrEqual(1_000);
  });

  it('of one server is told to those that wait beside it', async () => {
    const seen: object[] = [];
    const [asking, taking] = [queue(), queue()];
    await taking.take('beside', async (data) => void seen.push(data));
    await setTimeout(100); // it has looked, and sleeps
    await asking.ask('beside', { id: 1 });
    await asking.ask('beside', { id: 2 }, 1);
    await expect.poll(() => seen, { timeout: 15_000 }).toEqual([{ id: 1 }, { id: 2 }]);
  });

  it('asks for no job as long as there is none', async () => {
    const asked = vi.spyOn(database.pool, 'connect');
    const one = queue();
    for (const name of ['none', 'nothing', 'nobody']) await one.take(name, async () => undefined);
    await setTimeout(100);
    asked.mockClear();
    await setTimeout(4_500);
    expect(asked.mock.calls.length).toBeLessThanOrEqual(2); // a look for all of them every other second
  });

  it('of a server that stops is gone on with by the next one', async () => {
    const one = queue();
    let isBegun = false;
    await one.take('carried-on', async (_data, { signal }) => {
      isBegun = true;
      await new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(new Error('stopped'))));
    });
    await one.ask('carried-on', { id: 7 });
    await expect.poll(() => isBegun).toBe(true);
    await one.onApplicationShutdown();
    expect(await states('carried-on')).toEqual(['retry']);
    const seen: object[] = [];
    await queue().take('carried-on', async (data) => void seen.push(data));
    await expect.poll(() => seen, { timeout: 15_000 }).toEqual([{ id: 7 }]);
  });

  it('asks for what is due each minute once, however many servers do', async () => {
    const [one, other] = [queue(), queue()];
    for (const each of [one, other]) await each.take('minutely', async () => undefined);
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    for (const each of [one, other]) await each.askEveryMinute('minutely');
    vi.advanceTimersByTime(60_000);
    await expect.poll(() => states('minutely'), { timeout: 10_000 }).toEqual(['completed']);
  });
});
