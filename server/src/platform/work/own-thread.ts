import { Worker } from 'node:worker_threads';
import { Refusal } from '../errors/refusal.js';
import type { Answered, Asked } from './answer-in-thread.js';
import { workerFile } from './worker-file.js';

export interface ThreadLimits {
  readonly megabytes: number;
  /** For one question. */
  readonly seconds: number;
  /** What is said where it takes more. */
  readonly tooMuch: Refusal;
}

interface Waiting {
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: Error) => void;
  readonly tooLong: NodeJS.Timeout;
}

/**
 * A thread of one's own for what comes from outside and may be made to take much: it is asked by names of what `answerInThread`
 * was given there, and stopped where it takes more memory or time than it may. Once it ended, whatever is asked is refused at
 * once with why.
 * @param script as `new URL('./x-worker.js', import.meta.url)`
 */
export class OwnThread {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;
  private ended: Error | undefined;

  constructor(
    script: URL,
    private readonly limits: ThreadLimits,
  ) {
    const resourceLimits = { maxOldGenerationSizeMb: limits.megabytes };
    this.worker = new Worker(workerFile(script), { resourceLimits, execArgv: [] });
    this.worker.on('message', (answer: Answered) => this.settle(answer));
    this.worker.on('error', (error: Error & { readonly code?: string }) =>
      this.end(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? limits.tooMuch : error),
    );
    this.worker.on('exit', () => this.end(limits.tooMuch));
    this.worker.unref();
  }

  get hasEnded(): boolean {
    return this.ended !== undefined;
  }

  ask<Value>(name: string, ...given: readonly unknown[]): Promise<Value> {
    if (this.ended) return Promise.reject(this.ended);
    const id = ++this.lastId;
    return new Promise<Value>((resolve, reject) => {
      const tooLong = setTimeout(() => void this.worker.terminate(), this.limits.seconds * 1000);
      this.waiting.set(id, { resolve: resolve as (value: unknown) => void, reject, tooLong });
      this.worker.postMessage({ id, name, given } satisfies Asked);
    });
  }

  async close(): Promise<void> {
    await this.worker.terminate();
  }

  private settle(answer: Answered): void {
    const waiting = this.waiting.get(answer.id);
    if (!waiting) return;
    this.waiting.delete(answer.id);
    clearTimeout(waiting.tooLong);
    if ('value' in answer) waiting.resolve(answer.value);
    else waiting.reject('refused' in answer ? new Refusal(answer.refused.code, answer.refused.data) : answer.failed);
  }

  private end(error: Error): void {
    this.ended ??= error;
    for (const { reject, tooLong } of this.waiting.values()) {
      clearTimeout(tooLong);
      reject(this.ended);
    }
    this.waiting.clear();
  }
}
