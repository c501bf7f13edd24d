import { parentPort, workerData, type TransferListItem } from 'node:worker_threads';
import { Refusal } from '../errors/refusal.js';
import type { ThreadAnswer } from './in-own-thread.js';

/** In a thread that `inOwnThread` began: does what it was begun for. Bytes that are handed over are not copied. */
export async function answerFromThread<Value>(
  work: (task: never) => Promise<Value>,
  handedOver: (value: Value) => TransferListItem[],
): Promise<void> {
  let answer: ThreadAnswer;
  let transfer: TransferListItem[] = [];
  try {
    const value = await work(workerData as never);
    answer = { value };
    transfer = handedOver(value);
  } catch (error) {
    answer =
      error instanceof Refusal ? { refused: { code: error.code, data: error.data } } : { failed: error as Error };
  }
  parentPort!.postMessage(answer, transfer);
}
