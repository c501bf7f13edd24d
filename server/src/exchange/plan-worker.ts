import { parentPort } from 'node:worker_threads';
import { Refusal } from '#server/platform/files';
import { PlanInThread } from './plan-in-thread.js';

/** One thing asked of the thread: a method of the plan, and what it is given. */
export interface Asked {
  readonly id: number;
  readonly name: 'read' | Exclude<keyof PlanInThread, symbol>;
  readonly given: readonly unknown[];
}

export type Answered =
  | { readonly id: number; readonly value: unknown }
  | { readonly id: number; readonly refused: Pick<Refusal, 'code' | 'data'> }
  | { readonly id: number; readonly failed: Error };

let plan: PlanInThread | undefined;

parentPort!.on('message', async ({ id, name, given }: Asked) => {
  let answer: Answered;
  try {
    answer = { id, value: await answerOf(name, given) };
  } catch (error) {
    answer =
      error instanceof Refusal
        ? { id, refused: { code: error.code, data: error.data } }
        : { id, failed: error as Error };
  }
  parentPort!.postMessage(answer);
});

async function answerOf(name: Asked['name'], given: readonly unknown[]): Promise<unknown> {
  if (name === 'read') {
    const [bytes, fileName] = given as [Uint8Array, string];
    plan = await PlanInThread.read(Buffer.from(bytes), fileName);
    return plan.facts();
  }
  return (plan![name] as (...args: unknown[]) => unknown).apply(plan, [...given]);
}
