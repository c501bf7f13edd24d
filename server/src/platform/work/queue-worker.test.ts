import { describe, expect, it, vi } from 'vitest';
import { QueueWorker, type JobSource, type WorkOnJob } from './queue-worker.js';

/** Jobs from memory, each to be tried twice; keeps what came of them. */
function jobsOf(...ids: string[]) {
  const waiting = ids.map((id) => ({ id, data: { id }, retryCount: 0, retryLimit: 1 }));
  const outcomes: string[] = [];
  const source: JobSource = {
    next: async () => waiting.shift() as never,
    complete: async (id) => outcomes.push(`${id} complete`),
    fail: async (id, { message }) => {
      outcomes.push(`${id} failed: ${message}`);
      waiting.push({ id, data: { id }, retryCount: 1, retryLimit: 1 });
    },
  };
  return { source, outcomes, add: (id: string) => waiting.push({ id, data: { id }, retryCount: 0, retryLimit: 1 }) };
}

function start(source: JobSource, work: WorkOnJob) {
  const stop = new AbortController();
  const told: unknown[] = [];
  const worker = new QueueWorker(source, work, stop.signal, (error) => told.push(error));
  const end = async () => {
    stop.abort();
    await worker.end();
  };
  return { worker, told, end };
}

describe('a worker of a queue', () => {
  it('works on one job at a time, in their order, and wakes for one that comes', async () => {
    const { source, outcomes, add } = jobsOf('a', 'b');
    let atOnce = 0;
    const { worker, end } = start(source, async () => {
      expect((atOnce += 1)).toBe(1);
      await Promise.resolve();
      atOnce -= 1;
    });
    await expect.poll(() => outcomes).toEqual(['a complete', 'b complete']);
    add('c');
    worker.wake();
    await expect.poll(() => outcomes.at(-1)).toBe('c complete');
    await end();
  });

  it('gives back a job that throws, and knows of the last try', async () => {
    const { source, outcomes } = jobsOf('a');
    const lastTries: boolean[] = [];
    const { end } = start(source, async (_data, { isLastTry }) => {
      lastTries.push(isLastTry);
      if (!isLastTry) throw new Error('not now');
    });
    await expect.poll(() => outcomes).toEqual(['a failed: not now', 'a complete']);
    expect(lastTries).toEqual([false, true]);
    await end();
  });

  it.each<[string, Partial<JobSource>]>([
    ['complete', { complete: () => Promise.reject(new Error('gone')) }],
    ['fail', { fail: () => Promise.reject(new Error('gone')) }],
  ])('tells that the database refused to %s a job, and goes on with the next', async (_name, refusing) => {
    const { source } = jobsOf('a', 'b');
    const seen: object[] = [];
    const { told, end } = start({ ...source, ...refusing }, async (data) => {
      seen.push(data);
      if ('fail' in refusing) throw new Error('not now');
    });
    await expect.poll(() => seen).toEqual([{ id: 'a' }, { id: 'b' }]);
    await end();
    expect(told.map(String)).toEqual(['Error: gone', 'Error: gone']);
  });

  it('that is stopped tells the job so, waits until it has let go of it, and takes no other', async () => {
    const { source, outcomes } = jobsOf('a', 'b');
    let isBegun = false;
    const { end } = start(source, async (_data, { signal }) => {
      isBegun = true;
      await new Promise((resolve) => signal.addEventListener('abort', resolve));
      throw new Error('stopped');
    });
    await expect.poll(() => isBegun).toBe(true);
    await end();
    expect(outcomes).toEqual(['a failed: stopped']);
  });

  it('that is stopped while a job is on its way gives it back unbegun', async () => {
    const { source, outcomes } = jobsOf('a');
    const work = vi.fn<WorkOnJob>();
    await start(source, work).end();
    expect(outcomes).toHaveLength(1);
    expect(work).not.toHaveBeenCalled();
  });
});
