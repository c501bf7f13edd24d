import { Injectable } from '@nestjs/common';
import type { RulesInForce } from '#core/audit';
import { ScaleVersionsRepository } from '#server/period-view';
import { ThreadPool, Transactions, workerFile } from '#server/platform';
import { noScale } from '../snapshots/grade-fact-of.js';
import type { PartRead } from '../snapshots/part-read.js';
import type { PartLook, PartLooked, PartTask } from './audit-thread.js';

const auditThread = workerFile(new URL('./audit-thread.js', import.meta.url));

/** Lets the rules look at parts of a period in a thread of their own, while the next part is read and others are answered. */
@Injectable()
export class PartLooker {
  constructor(
    private readonly threads: ThreadPool,
    private readonly scales: ScaleVersionsRepository,
    private readonly transactions: Transactions,
  ) {}

  async look(part: PartRead, inForce: RulesInForce): Promise<PartLooked> {
    const task: PartTask = { part, inForce };
    const found = await this.threads.run<PartLook>(auditThread, task);
    if ('seen' in found) return found;
    const { ground } = part;
    const missing = await this.scales.byId(this.transactions.reading, found.missing);
    // One that went meanwhile, with what was posted under it, is asked for once.
    const all = found.missing.map((id) => [id, missing.get(id) ?? noScale] as const);
    return this.look({ ...part, ground: { ...ground, versions: new Map([...ground.versions, ...all]) } }, inForce);
  }
}
