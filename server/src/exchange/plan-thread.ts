import { OwnThread, Refusal } from '#server/platform';
import type { Stretch } from './held-rows.repository.js';
import type { PlanInThread, ZipFacts } from './plan-in-thread.js';

/** Rows handed over at once: few enough for others to be answered in between. */
const rowsAtOnce = 2_000;
/** A zip of the largest size, and a district of its size, have room in it; one that needs more is stopped. */
const megabytes = 3_072;
const seconds = 600;

type Questions = Exclude<keyof PlanInThread, 'takeHere' | 'takeMade'>;

/** The thread that a zip is read and planned in, so that nobody waits for it; it ends with its zip. */
export class PlanThread {
  private constructor(private readonly thread: OwnThread) {}

  /** @throws Refusal as `readZipOrThrow` */
  static async open(bytes: Buffer, name: string): Promise<{ readonly thread: PlanThread; readonly facts: ZipFacts }> {
    const tooMuch = new Refusal('exchange-unreadable', { name, reason: 'it holds more than can be read; split it' });
    const thread = new OwnThread(new URL('./plan-worker.js', import.meta.url), { megabytes, seconds, tooMuch });
    try {
      return { thread: new PlanThread(thread), facts: await thread.ask<ZipFacts>('read', bytes, name) };
    } catch (error) {
      await thread.close();
      throw error;
    }
  }

  get hasEnded(): boolean {
    return this.thread.hasEnded;
  }

  /** Asks a method of the plan. */
  ask<Name extends Questions>(
    name: Name,
    ...given: Parameters<PlanInThread[Name]>
  ): Promise<ReturnType<PlanInThread[Name]>> {
    return this.thread.ask(name, ...given);
  }

  /** Hands over what is here, or what was made of it, a stretch at a time. */
  async hand(name: 'takeHere' | 'takeMade', stretches: AsyncIterable<Stretch>): Promise<void> {
    for await (const [file, own] of stretches)
      for (let from = 0; from < own.length; from += rowsAtOnce)
        await this.thread.ask(name, file, own.slice(from, from + rowsAtOnce));
  }

  close(): Promise<void> {
    return this.thread.close();
  }
}
