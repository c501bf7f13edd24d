import { Worker } from 'node:worker_threads';
import { Refusal, workerFile } from '#server/platform';
import type { Stretch } from './held-rows.repository.js';
import type { PlanInThread, ZipFacts } from './plan-in-thread.js';
import type { Answered, Asked } from './plan-worker.js';

/** Rows handed over at once: few enough for others to be answered in between. */
const rowsAtOnce = 2_000;
/** A zip of the largest size, and a district of its size, have room in it; one that needs more is stopped. */
const mostMegabytes = 3_072;
/** For so long a zip may keep a thread at one question, in milliseconds. */
const patience = 10 * 60 * 1000;

interface Waiting {
  readonly resolve: (value: never) => void;
  readonly reject: (error: Error) => void;
}

/** The thread that a zip is read and planned in, so that nobody waits for it; it ends with its zip. */
export class PlanThread {
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;

  private constructor(
    private readonly worker: Worker,
    private readonly name: string,
  ) {
    worker.on('message', (answer: Answered) => this.settle(answer));
    worker.on('error', (error: Error & { readonly code?: string }) => this.end(this.failureOf(error)));
    worker.on('exit', () => this.end(this.stopped()));
    worker.unref();
  }

  /** @throws Refusal as `readZipOrThrow` */
  static async open(bytes: Buffer, name: string): Promise<{ readonly thread: PlanThread; readonly facts: ZipFacts }> {
    const limits = { resourceLimits: { maxOldGenerationSizeMb: mostMegabytes }, execArgv: [] };
    const thread = new PlanThread(new Worker(workerFile(new URL('./plan-worker.js', import.meta.url)), limits), name);
    try {
      return { thread, facts: await thread.call<ZipFacts>('read', bytes, name) };
    } catch (error) {
      await thread.close();
      throw error;
    }
  }

  /** Asks a method of the plan. */
  ask<Name extends Exclude<keyof PlanInThread, 'takeHere' | 'takeMade'>>(
    name: Name,
    ...given: Parameters<PlanInThread[Name]>
  ): Promise<ReturnType<PlanInThread[Name]>> {
    return this.call(name, ...given);
  }

  /** Hands over what is here, or what was made of it, a stretch at a time. */
  async hand(name: 'takeHere' | 'takeMade', stretches: AsyncIterable<Stretch>): Promise<void> {
    for await (const [file, own] of stretches)
      for (let from = 0; from < own.length; from += rowsAtOnce)
        await this.call(name, file, own.slice(from, from + rowsAtOnce));
  }

  async close(): Promise<void> {
    await this.worker.terminate();
  }

  private call<Value>(name: Asked['name'], ...given: readonly unknown[]): Promise<Value> {
    const id = ++this.lastId;
    return new Promise<Value>((resolve, reject) => {
      const tooLong = setTimeout(() => void this.worker.terminate(), patience);
      const settled =
        <Given>(settle: (given: Given) => void) =>
        (value: Given) => {
          clearTimeout(tooLong);
          settle(value);
        };
      this.waiting.set(id, { resolve: settled(resolve), reject: settled(reject) });
      this.worker.postMessage({ id, name, given } satisfies Asked);
    });
  }

  private settle(answer: Answered): void {
    const waiting = this.waiting.get(answer.id);
    this.waiting.delete(answer.id);
    if ('value' in answer) waiting?.resolve(answer.value as never);
    else waiting?.reject('refused' in answer ? new Refusal(answer.refused.code, answer.refused.data) : answer.failed);
  }

  private end(error: Error): void {
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }

  private failureOf(error: Error & { readonly code?: string }): Error {
    return error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? this.stopped() : error;
  }

  private stopped(): Refusal {
    return new Refusal('exchange-unreadable', { name: this.name, reason: 'it holds more than can be read; split it' });
  }
}
