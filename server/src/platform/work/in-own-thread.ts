import { Worker } from 'node:worker_threads';
import { Refusal } from '../errors/refusal.js';
import { workerFile } from './worker-file.js';

/** What a thread answers with; `answerFromThread` sends it. */
export type ThreadAnswer =
  | { readonly value: unknown }
  | { readonly refused: Pick<Refusal, 'code' | 'data'> }
  | { readonly failed: Error };

export interface ThreadLimits {
  readonly megabytes: number;
  readonly seconds: number;
  /** What is said where it takes more. */
  readonly tooMuch: Refusal;
}

/**
 * Does one thing in a thread of its own that is stopped where it takes more memory or time than it may, and is gone
 * afterwards. For what comes from outside and may be made to take much.
 * @param script as `new URL('./x-worker.js', import.meta.url)`
 */
export async function inOwnThread<Value>(script: URL, task: unknown, limits: ThreadLimits): Promise<Value> {
  const worker = new Worker(workerFile(script), {
    workerData: task,
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: limits.megabytes },
  });
  const tooLong = setTimeout(() => void worker.terminate(), limits.seconds * 1000);
  try {
    const answer = await new Promise<ThreadAnswer>((resolve, reject) => {
      worker.once('message', resolve);
      worker.once('error', (error: Error & { readonly code?: string }) =>
        reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? limits.tooMuch : error),
      );
      worker.once('exit', () => reject(limits.tooMuch));
    });
    if ('value' in answer) return answer.value as Value;
    throw 'refused' in answer ? new Refusal(answer.refused.code, answer.refused.data) : answer.failed;
  } finally {
    clearTimeout(tooLong);
    await worker.terminate();
  }
}
