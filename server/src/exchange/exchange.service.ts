import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  exchangeOutcomes,
  isTaking,
  planExchange,
  type ExchangeFile,
  type ExchangeOutcome,
  type ExchangeVersion,
  type PlannedExchangeRow,
} from '#core/exchange';
import type {
  ExchangeImportReply,
  ExchangeRowsQuery,
  ExchangeRowsReply,
  ExchangeSummaryReply,
} from '#contract/exchange';
import { RecalculationService } from '#server/calculation';
import { ChangeLog } from '#server/changes';
import { Clock, DistrictZone, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ExchangeImportsRepository, type KeptImport } from './exchange-imports.repository.js';
import { readZipOrThrow, writeZip, type ReadZip } from './exchange-zip.js';
import { HeldRowsRepository } from './held-rows.repository.js';
import { RosterFieldsRepository } from './roster-fields.repository.js';
import { WriteRowsService, type PlanToWrite } from './write-rows.service.js';

const mostRows = 1_000;

interface Planned extends PlanToWrite {
  readonly zip: ReadZip;
  readonly previewId: string;
}

/** Rosters and grade books out and in, as zips that other systems read and write. */
@Injectable()
export class ExchangeService {
  private lastShown: (Planned & { readonly id: number }) | undefined;

  constructor(
    private readonly transactions: Transactions,
    private readonly imports: ExchangeImportsRepository,
    private readonly held: HeldRowsRepository,
    private readonly rosterFields: RosterFieldsRepository,
    private readonly writing: WriteRowsService,
    private readonly recalculation: RecalculationService,
    private readonly log: ChangeLog,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {}

  async export(actor: Actor, version: ExchangeVersion): Promise<Buffer> {
    const rows = await this.held.all(this.transactions.reading, version);
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
    const { manifest } = await readZipOrThrow(bytes, name);
    const id = await this.transactions.run(async (queries) => {
      const id = await this.imports.add(queries, {
        fileName: name,
        bytes,
        version: manifest.version,
        status: 'read',
        readBy: actor.personId,
        readAt: this.clock.now(),
      });
      const after = { name, bytes: bytes.length, version: manifest.version };
      await this.log.record(queries, actor, [{ action: 'read rosters', thing: `rosters ${id}`, before: null, after }]);
      return id;
    });
    return this.byId(id);
  }

  async byId(id: number): Promise<ExchangeImportReply> {
    const queries = this.transactions.reading;
    const kept = await this.imports.byIdOrThrow(queries, id);
    const summary = await this.imports.summary(queries, id);
    if (kept.bytes === null)
      return { ...summary, previewId: null, files: kept.counts as ExchangeImportReply['files'], passedOver: [] };
    const { zip, plan, previewId } = await this.show(queries, kept);
    return { ...summary, previewId, files: countsOf(zip, plan), passedOver: zip.manifest.passedOver };
  }

  async rows(id: number, { file, outcome }: ExchangeRowsQuery): Promise<ExchangeRowsReply> {
    const queries = this.transactions.reading;
    const kept = await this.imports.byIdOrThrow(queries, id);
    if (kept.bytes === null) return { rows: [], total: 0 };
    const { plan } = this.lastShown?.id === id ? this.lastShown : await this.show(queries, kept);
    const own = plan.filter(
      (each) => (file === undefined || each.file === file) && (outcome === undefined || each.outcome === outcome),
    );
    return { rows: own.slice(0, mostRows), total: own.length };
  }

  /** Writes all that the preview says is new, changed or to be deleted, or nothing. */
  async accept(actor: Actor, id: number, previewId: string): Promise<ExchangeImportReply> {
    await this.transactions.run(async (queries) => {
      const kept = await this.imports.lockedOrThrow(queries, id);
      if (kept.status !== 'read') throw new Refusal('import-done', { status: kept.status });
      const planned = await this.planned(queries, kept);
      const { zip, plan } = planned;
      if (planned.previewId !== previewId) throw new Refusal('preview-changed');
      const counts = countsOf(zip, plan);
      if (plan.every(({ outcome }) => !isTaking(outcome))) throw new Refusal('nothing-to-write');
      const dayOf = await this.zone.dayOf(queries);
      await this.writing.write(queries, planned, dayOf(this.clock.now()));
      await this.imports.change(queries, id, { status: 'accepted', acceptedAt: this.clock.now(), bytes: null, counts });
      await this.log.record(queries, actor, [
        { action: 'import rosters', thing: `rosters ${id}`, before: { status: 'read' }, after: { counts } },
      ]);
    });
    this.lastShown = undefined;
    await this.recalculation.start();
    return this.byId(id);
  }

  async discard(actor: Actor, id: number): Promise<void> {
    await this.transactions.run(async (queries) => {
      const { status, fileName } = await this.imports.byIdOrThrow(queries, id);
      if (status !== 'read') throw new Refusal('import-done', { status });
      await this.imports.remove(queries, id);
      await this.log.record(queries, actor, [
        { action: 'discard rosters', thing: `rosters ${id}`, before: { name: fileName }, after: null },
      ]);
    });
  }

  /** As it is now, and kept so that its rows can be looked through; what is taken in is always planned anew. */
  private async show(queries: Queries, kept: KeptImport): Promise<Planned> {
    const planned = await this.planned(queries, kept);
    this.lastShown = { ...planned, id: kept.id };
    return planned;
  }

  private async planned(queries: Queries, { bytes, fileName }: KeptImport): Promise<Planned> {
    const zip = await readZipOrThrow(bytes!, fileName);
    const { version } = zip.manifest;
    const results = zip.files.results ?? [];
    const byIdAlone = results.filter((row) => !row['lineItemSourcedId']).map((row) => row['sourcedId'] ?? '');
    const lineItemIds = [
      ...new Set([
        ...results.map((row) => row['lineItemSourcedId'] ?? ''),
        ...(await this.rosterFields.lineItemsOf(queries, byIdAlone)),
        // our own ids of results begin with the line item's
        ...byIdAlone.map((id) => id.slice(0, Math.max(0, id.lastIndexOf('/')))),
      ]),
    ];
    const here = await this.held.all(queries, version, lineItemIds);
    const plan = planExchange(zip.manifest, zip.files, here, await this.held.sealedSessions(queries));
    const brief = plan.map(({ file, line, outcome, changes }) => [file, line, outcome, ...changes].join(' '));
    return {
      zip,
      version,
      plan,
      here,
      lineItemIds,
      previewId: createHash('sha256').update(brief.join('\n')).digest('hex'),
    };
  }
}

function countsOf({ manifest, files }: ReadZip, plan: readonly PlannedExchangeRow[]): ExchangeImportReply['files'] {
  return (Object.keys(files) as ExchangeFile[]).map((file) => {
    const own = plan.filter((each) => each.file === file);
    const counts = Object.fromEntries(
      exchangeOutcomes.map((outcome) => [outcome, own.filter((each) => each.outcome === outcome).length]),
    ) as Record<ExchangeOutcome, number>;
    return { file, mode: manifest.modes[file] as 'bulk' | 'delta', rows: own.length, counts };
  });
}
