import { parentPort } from 'node:worker_threads';
import { Refusal } from '../errors/refusal.js';

export interface Asked {
  readonly id: number;
  readonly name: string;
  readonly given: readonly unknown[];
}

export type Answered =
  | { readonly id: number; readonly value: unknown }
  | { readonly id: number; readonly refused: Pick<Refusal, 'code' | 'data'> }
  | { readonly id: number; readonly failed: Error };

/** In a thread that `OwnThread` began: answers what it is asked by name, one question after the other. */
export function answerInThread(answer: (name: string, given: readonly unknown[]) => unknown): void {
  let last: Promise<void> = Promise.resolve();
  parentPort!.on('message', (asked: Asked) => {
    last = last.then(async () => parentPort!.postMessage(await answered(asked, answer)));
  });
}

async function answered(
  { id, name, given }: Asked,
  answer: (name: string, given: readonly unknown[]) => unknown,
): Promise<Answered> {
  try {
    return { id, value: await answer(name, given) };
  } catch (error) {
    if (error instanceof Refusal) return { id, refused: { code: error.code, data: error.data } };
    return { id, failed: error as Error };
  }
}
