import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';

/** Threads for heavy computation, shared by all who have some; none while there is nothing to do. */
@Injectable()
export class ThreadPool implements OnApplicationShutdown {
  private readonly pool = new Piscina({ minThreads: 0, maxThreads: 2, idleTimeout: 30_000, execArgv: [] });

  async onApplicationShutdown(): Promise<void> {
    await this.pool.destroy();
  }

  /** Runs a function of a worker's script, its usual one unless another is named. */
  async run<Result>(filename: string, task: object, name = 'default'): Promise<Result> {
    return (await this.pool.run(task, { filename, name })) as Result;
  }
}
