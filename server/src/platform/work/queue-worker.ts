import { once } from 'node:events';
import type { JobWithMetadata } from 'pg-boss';

/** Work on a job; the signal says when to stop because the server stops. What is thrown is tried again later. */
export type WorkOnJob = (data: object, job: JobTry) => Promise<void>;

export interface JobTry {
  readonly signal: AbortSignal;
  readonly isLastTry: boolean;
}

/** Where a worker finds its jobs and says what came of them. */
export interface JobSource {
  next(): Promise<JobWithMetadata | undefined>;
  complete(id: string): Promise<unknown>;
  fail(id: string, error: Error): Promise<unknown>;
}

/**
 * Works on the jobs of one name, one at a time, until there are none; then it sleeps until it is woken. What the database refuses is told and never thrown: what could not be said of
 * a job is said when it is tried again, as a job may be begun again at any time.
 */
export class QueueWorker {
  private readonly ended: Promise<void>;
  private nap = new AbortController();

  constructor(
    private readonly jobs: JobSource,
    private readonly work: WorkOnJob,
    private readonly stop: AbortSignal,
    private readonly tell: (error: unknown) => void,
  ) {
    stop.addEventListener('abort', () => this.wake());
    this.ended = this.run();
  }

  /** There may be a job now. */
  wake(): void {
    this.nap.abort();
  }

  /** Waits until it has stopped, what it was at included. */
  async end(): Promise<void> {
    await this.ended;
  }

  private async run(): Promise<void> {
    while (!this.stop.aborted) {
      const { signal } = (this.nap = new AbortController());
      const job = await this.jobs.next().catch(this.tell);
      if (job) await this.workOn(job).catch(this.tell);
      else if (!signal.aborted) await once(signal, 'abort');
    }
  }

  private async workOn({ id, data, retryCount, retryLimit }: JobWithMetadata): Promise<void> {
    try {
      this.stop.throwIfAborted(); // while the job was on its way: it is given back
      await this.work(data, { signal: this.stop, isLastTry: retryCount >= retryLimit });
    } catch (error) {
      await this.jobs.fail(id, error instanceof Error ? error : new Error(String(error)));
      return;
    }
    await this.jobs.complete(id);
  }
}
