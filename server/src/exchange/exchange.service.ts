import { Injectable } from '@nestjs/common';
import { isTaking, type ExchangeOutcome, type ExchangeVersion } from '#core/exchange';
import type {
  ExchangeImportReply,
  ExchangeRowsQuery,
  ExchangeRowsReply,
  ExchangeSummaryReply,
} from '#contract/exchange';
import { fileStates } from '#contract/files';
import { ChangeLog } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor } from '#server/platform';
import { ExchangeImportsRepository } from './exchange-imports.repository.js';
import { ExchangePlans, type PlannedZip } from './exchange-plans.js';
import { ExchangeWorker } from './exchange-worker.js';
import { writeZip } from './exchange-zip.js';
import { HeldRowsRepository } from './held-rows.repository.js';

const mostRows = 1_000;

/** Rosters and grade books out and in, as zips that other systems read and write. */
@Injectable()
export class ExchangeService {
  constructor(
    private readonly transactions: Transactions,
    private readonly imports: ExchangeImportsRepository,
    private readonly held: HeldRowsRepository,
    private readonly plans: ExchangePlans,
    private readonly worker: ExchangeWorker,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  async export(actor: Actor, version: ExchangeVersion): Promise<Buffer> {
    const rows = await this.transactions.snapshot((queries) => this.held.all(queries, version));
    const counts = Object.fromEntries(Object.entries(rows).map(([file, own]) => [file, own.length]));
    await this.transactions.run((queries) =>
      this.log.record(queries, actor, [
        { action: 'export rosters', thing: 'district', before: null, after: { version, ...counts } },
      ]),
    );
    return writeZip(rows, version);
  }

  list(): Promise<ExchangeSummaryReply[]> {
    return this.imports.all(this.transactions.reading);
  }

  /** Reads a zip and keeps it, so that its rows can be looked at. Writes nothing of it. */
  async read(actor: Actor, name: string, bytes: Buffer): Promise<ExchangeImportReply> {
    const id = await this.plans.read(bytes, name, ({ manifest: { version } }) =>
      this.transactions.run(async (queries) => {
        const added = { fileName: name, bytes, version, readBy: actor.personId, readAt: this.clock.now() };
        const id = await this.imports.add(queries, { ...added, status: 'read' });
        const after = { name, bytes: bytes.length, version };
        await this.log.record(queries, actor, [
          { action: 'read rosters', thing: `rosters ${id}`, before: null, after },
        ]);
        return id;
      }),
    );
    return this.byId(id);
  }

  async byId(id: number): Promise<ExchangeImportReply> {
    const queries = this.transactions.reading;
    const kept = await this.imports.byIdOrThrow(queries, id);
    const summary = await this.imports.summary(queries, id);
    if (kept.status !== 'read')
      return { ...summary, previewId: null, files: filesOf(kept.counts), passedOver: [], encodings: [] };
    const planned = await this.plans.show(kept);
    const { manifest, encodings } = planned.facts;
    const { previewId } = planned.summary;
    return { ...summary, previewId, files: countsOf(planned), passedOver: manifest.passedOver, encodings };
  }

  async rows(id: number, { file, outcome }: ExchangeRowsQuery): Promise<ExchangeRowsReply> {
    const kept = await this.imports.byIdOrThrow(this.transactions.reading, id);
    if (kept.status !== 'read') return { rows: [], total: 0 };
    const { thread } = await this.plans.shownOf(kept);
    return thread.ask('rows', { ...(file && { file }), ...(outcome && { outcome }), most: mostRows });
  }

  /**
   * Begins to write all that the preview says is new, changed or to be deleted. Whoever writes it plans it anew, and stops where
   * that is no longer what was looked at.
   */
  async accept(actor: Actor, id: number, previewId: string): Promise<ExchangeImportReply> {
    const shown = await this.imports.byIdOrThrow(this.transactions.reading, id);
    if (shown.status !== 'read') throw new Refusal('import-done', { state: fileStates[shown.status] });
    const planned = await this.plans.shownOf(shown);
    if (planned.summary.previewId !== previewId) throw new Refusal('preview-changed');
    const counts = countsOf(planned);
    const stepCount = counts.reduce((sum, { counts: own }) => sum + takenOf(own), 0);
    if (stepCount === 0) throw new Refusal('nothing-to-write');
    await this.transactions.run(async (queries) => {
      const { status } = await this.imports.lockedOrThrow(queries, id);
      if (status !== 'read') throw new Refusal('import-done', { state: fileStates[status] });
      const work = { previewId, counts, acceptedBy: actor.personId, stepCount, stepsDone: 0, problem: null };
      await this.imports.change(queries, id, { status: 'accepting', ...work });
    });
    await this.plans.letGo();
    await this.worker.work.begin(id);
    return this.byId(id);
  }

  async discard(actor: Actor, id: number): Promise<void> {
    await this.transactions.run(async (queries) => {
      const { status, fileName } = await this.imports.byIdOrThrow(queries, id);
      if (status !== 'read') throw new Refusal('import-done', { state: fileStates[status] });
      await this.imports.remove(queries, id);
      await this.log.record(queries, actor, [
        { action: 'discard rosters', thing: `rosters ${id}`, before: { name: fileName }, after: null },
      ]);
    });
  }
}

type Files = ExchangeImportReply['files'];

function countsOf({ facts, summary }: PlannedZip): Files {
  return summary.files.map((each) => ({ ...each, mode: facts.manifest.modes[each.file] as 'bulk' | 'delta' }));
}

/** What was kept of a zip when it was accepted. */
function filesOf(counts: unknown): Files {
  return counts as Files;
}

function takenOf(counts: Readonly<Record<ExchangeOutcome, number>>): number {
  return (Object.keys(counts) as ExchangeOutcome[]).filter(isTaking).reduce((sum, outcome) => sum + counts[outcome], 0);
}
