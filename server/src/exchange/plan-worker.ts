import { answerInThread } from '#server/platform/files';
import { PlanInThread } from './plan-in-thread.js';

let plan: PlanInThread | undefined;

answerInThread(async (name, given) => {
  if (name === 'read') {
    const [bytes, fileName] = given as [Uint8Array, string];
    plan = await PlanInThread.read(Buffer.from(bytes), fileName);
    return plan.facts();
  }
  return (plan![name as keyof PlanInThread] as (...args: unknown[]) => unknown).apply(plan, [...given]);
});
