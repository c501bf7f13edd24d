import { Injectable } from '@nestjs/common';
import {
  isStillPlanned,
  planClass,
  rowKey,
  type AssignmentFacts,
  type LedgerRow,
  type MarkFacts,
  type RowResult,
  type ScoreFacts,
  type TheirClass,
} from '#core/runs';
import { BooksRepository } from '#server/calculation';
import { ChangeLog } from '#server/changes';
import type { Queries } from '#server/platform';
import { CarryOverRepository } from './carry-over.repository.js';
import { LedgerRepository, type KeptRow } from './ledger.repository.js';
import { RunGroundService, type RunGround } from './run-ground.service.js';
import type { ClassOfRun, KeptRun } from './runs.repository.js';

/** What became of a line, and which version it was written as. */
interface Settled {
  readonly result: RowResult;
  readonly assignmentId?: number;
  readonly version?: number;
}

interface Place {
  readonly run: KeptRun;
  readonly ground: RunGround;
  readonly classId: number;
  readonly sectionId: number;
}

/** Carries one class over, inside the transaction that puts it behind the run. */
@Injectable()
export class CarryClassService {
  constructor(
    private readonly grounds: RunGroundService,
    private readonly books: BooksRepository,
    private readonly ledger: LedgerRepository,
    private readonly carrying: CarryOverRepository,
    private readonly log: ChangeLog,
  ) {}

  /** Plans the class once more and writes the picked lines that would still do what somebody saw. */
  async carry(queries: Queries, run: KeptRun, ground: RunGround, theirs: ClassOfRun): Promise<void> {
    const seen = await this.ledger.toWrite(queries, run.id, theirs.id);
    if (theirs.sectionId === null || theirs.reading === null) return this.settleAll(queries, seen, 'movedOn');
    await this.books.lockOrThrow(queries, theirs.sectionId);
    const now = await this.planNow(queries, run, ground, theirs, theirs.reading);
    const place: Place = { run, ground, classId: theirs.id, sectionId: theirs.sectionId };
    await this.takeUp(queries, place, [...now.values()]);
    const toWrite = seen.filter((row) => row.isPicked && isStillPlanned(factsOf(row), now.get(rowKey(row))));
    const settled = new Map<number, Settled>(
      seen.map((row) => [row.id, { result: row.isPicked ? ('movedOn' as const) : ('left' as const) }]),
    );
    for (const [id, each] of await this.writeAssignments(queries, place, toWrite)) settled.set(id, each);
    for (const [id, each] of await this.writeScores(queries, toWrite, settled)) settled.set(id, each);
    for (const [id, each] of await this.writeMarks(queries, place, toWrite)) settled.set(id, each);
    await this.ledger.settle(
      queries,
      [...settled].map(([id, { result, assignmentId, version }]) => ({
        id,
        result,
        assignmentId: assignmentId ?? null,
        writtenVersion: version ?? null,
      })),
    );
    const written = [...settled.values()].filter(({ result }) => result === 'written').length;
    if (written > 0) await this.record(queries, place, theirs, written);
  }

  private async planNow(
    queries: Queries,
    run: KeptRun,
    ground: RunGround,
    theirs: ClassOfRun,
    reading: TheirClass,
  ): Promise<ReadonlyMap<string, LedgerRow>> {
    const ours = await this.grounds.ofClass(queries, ground, theirs);
    return new Map(planClass(reading, ours, run).map((row) => [rowKey(row), row]));
  }

  /** From now on an assignment of ours is known to be the platform's, also where nothing of it is written. */
  private async takeUp(queries: Queries, { ground, classId }: Place, now: readonly LedgerRow[]): Promise<void> {
    const origins = now.flatMap(({ reasons, columnKey, assignmentId }) =>
      assignmentId !== null && reasons.some(({ code }) => code === 'taken-up') ? [{ columnKey, assignmentId }] : [],
    );
    await this.carrying.keepOrigins(queries, { platformId: ground.platform.id, classId }, origins);
  }

  private async writeAssignments(
    queries: Queries,
    { run, ground, classId, sectionId }: Place,
    rows: readonly KeptRow[],
  ): Promise<Map<number, Settled>> {
    const own = rows.filter(({ kind }) => kind === 'assignment');
    const created = own.filter(({ outcome }) => outcome === 'create');
    const changed = own.filter(({ outcome }) => outcome === 'change');
    const ids = await this.carrying.addAssignments(
      queries,
      { sectionId, periodId: run.periodId },
      created.map(({ after }) => after as AssignmentFacts),
    );
    await this.carrying.keepOrigins(
      queries,
      { platformId: ground.platform.id, classId },
      created.map(({ columnKey }, at) => ({ columnKey, assignmentId: ids[at]! })),
    );
    const versions = await this.carrying.changeAssignments(
      queries,
      changed.map(({ assignmentId, after }) => ({ ...(after as AssignmentFacts), id: assignmentId! })),
    );
    return new Map<number, Settled>([
      ...created.map(({ id }, at) => [id, { result: 'written', assignmentId: ids[at]!, version: 1 }] as const),
      ...changed.map(
        ({ id, assignmentId }) => [id, { result: 'written', version: versions.get(assignmentId!)! }] as const,
      ),
    ]);
  }

  /** A score whose assignment was left out or has moved on has nowhere to stand. */
  private async writeScores(
    queries: Queries,
    rows: readonly KeptRow[],
    settled: ReadonlyMap<number, Settled>,
  ): Promise<Map<number, Settled>> {
    const madeByColumn = new Map(
      rows.flatMap(({ id, kind, columnKey }) => {
        const assignmentId = settled.get(id)?.assignmentId;
        return kind === 'assignment' && assignmentId !== undefined ? [[columnKey, assignmentId] as const] : [];
      }),
    );
    const scores = rows.flatMap(({ id, kind, columnKey, assignmentId, enrollmentId, after }) => {
      const standing = assignmentId ?? madeByColumn.get(columnKey);
      if (kind !== 'score' || standing === undefined) return [];
      return [{ id, ...(after as ScoreFacts), assignmentId: standing, enrollmentId: enrollmentId! }];
    });
    const versions = await this.carrying.writeScores(queries, scores);
    return new Map(
      scores.map(({ id, assignmentId, enrollmentId }) => [
        id,
        { result: 'written', assignmentId, version: versions.get(`${assignmentId}/${enrollmentId}`)! },
      ]),
    );
  }

  private async writeMarks(queries: Queries, { run, ground, sectionId }: Place, rows: readonly KeptRow[]) {
    const scales = new Map(ground.items.get(sectionId)?.map(({ id, scaleVersionId }) => [id, scaleVersionId]));
    const marks = rows
      .filter(({ kind }) => kind === 'mark')
      .map((row) => ({
        row,
        mark: {
          ...(row.after as MarkFacts),
          itemId: row.itemId!,
          enrollmentId: row.enrollmentId!,
          scaleVersionId: scales.get(row.itemId!)!,
        },
      }));
    const versions = await this.carrying.writeMarks(
      queries,
      run.periodId,
      run.startedBy,
      marks.map(({ mark }) => mark),
    );
    return new Map<number, Settled>(
      marks.map(({ row, mark }) => [
        row.id,
        { result: 'written', version: versions.get(`${mark.itemId}/${mark.enrollmentId}`)! },
      ]),
    );
  }

  private async settleAll(queries: Queries, rows: readonly KeptRow[], result: RowResult): Promise<void> {
    await this.ledger.settle(
      queries,
      rows.map(({ id }) => ({ id, result, assignmentId: null, writtenVersion: null })),
    );
  }

  /** One entry for the class, which leads to the ledger, and one for each mark that the run posted. */
  private async record(queries: Queries, { run }: Place, theirs: ClassOfRun, written: number): Promise<void> {
    const marks = (await this.ledger.written(queries, run.id, theirs.id)).filter(({ kind }) => kind === 'mark');
    await this.log.recordOf(queries, run.startedBy, [
      {
        action: 'carry over class',
        thing: `run ${run.id}`,
        before: null,
        after: { class: theirs.title, section: theirs.sectionName, written },
      },
      ...marks.map(({ itemId, enrollmentId, before, after }) => ({
        action: 'save grade',
        thing: `grade ${itemId}/${run.periodId}/${enrollmentId}`,
        before,
        after: { ...(after as MarkFacts), run: run.id },
      })),
    ]);
  }
}

function factsOf({ outcome, before, after }: KeptRow) {
  return { outcome, before: before as LedgerRow['before'], after: after as LedgerRow['after'] };
}
