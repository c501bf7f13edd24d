import { Injectable } from '@nestjs/common';
import type { AssignmentFacts, MarkFacts, ScoreFacts } from '#core/runs';
import { BooksRepository } from '#server/calculation';
import { ChangeLog } from '#server/changes';
import type { Queries } from '#server/platform';
import { CarryOverRepository } from './carry-over.repository.js';
import { LedgerRepository, type KeptRow } from './ledger.repository.js';
import type { ClassOfRun, KeptRun } from './runs.repository.js';

const noScore: ScoreFacts = { points: null, flag: null };
const nothingPosted: MarkFacts = { percent: null, label: null, code: null };

/** Takes back what a run wrote for one class, inside the transaction that puts the class behind the run. */
@Injectable()
export class UndoClassService {
  constructor(
    private readonly books: BooksRepository,
    private readonly ledger: LedgerRepository,
    private readonly carrying: CarryOverRepository,
    private readonly log: ChangeLog,
  ) {}

  /** What somebody changed since the run stays as it is, and says so in the ledger. */
  async undo(queries: Queries, run: KeptRun, theirs: ClassOfRun): Promise<void> {
    const rows = await this.ledger.written(queries, run.id, theirs.id);
    if (rows.length === 0) return;
    const { sectionId } = theirs;
    if (sectionId !== null) await this.books.lockOrThrow(queries, sectionId);
    const undone = new Set([
      ...(await this.undoScores(queries, rows)),
      ...(await this.undoMarks(queries, run, rows)),
      ...(await this.undoAssignments(queries, rows)),
    ]);
    await this.ledger.settle(
      queries,
      rows.map(({ id, assignmentId, writtenVersion }) => ({
        id,
        result: undone.has(id) ? ('undone' as const) : ('stays' as const),
        assignmentId,
        writtenVersion,
      })),
    );
    await this.carrying.handBack(queries, run.periodId, [...undone]);
    await this.log.recordOf(queries, run.startedBy, [
      {
        action: 'undo class',
        thing: `run ${run.id}`,
        before: null,
        after: { class: theirs.title, undone: undone.size, stays: rows.length - undone.size },
      },
    ]);
  }

  private async undoScores(queries: Queries, rows: readonly KeptRow[]): Promise<number[]> {
    const own = rows.filter(({ kind }) => kind === 'score');
    const restored = await this.carrying.restoreScores(
      queries,
      own.map(({ assignmentId, enrollmentId, before, writtenVersion }) => ({
        ...((before as ScoreFacts | null) ?? noScore),
        assignmentId: assignmentId!,
        enrollmentId: enrollmentId!,
        version: writtenVersion!,
      })),
    );
    return own.filter((row) => restored.has(`${row.assignmentId}/${row.enrollmentId}`)).map(({ id }) => id);
  }

  private async undoMarks(queries: Queries, run: KeptRun, rows: readonly KeptRow[]): Promise<number[]> {
    const own = rows.filter(({ kind }) => kind === 'mark');
    const restored = await this.carrying.restoreMarks(
      queries,
      run.periodId,
      run.startedBy,
      own.map(({ itemId, enrollmentId, before, writtenVersion }) => ({
        ...((before as MarkFacts | null) ?? nothingPosted),
        itemId: itemId!,
        enrollmentId: enrollmentId!,
        version: writtenVersion!,
      })),
    );
    return own.filter((row) => restored.has(`${row.itemId}/${row.enrollmentId}`)).map(({ id }) => id);
  }

  private async undoAssignments(queries: Queries, rows: readonly KeptRow[]): Promise<number[]> {
    const own = rows.filter(({ kind }) => kind === 'assignment');
    const changed = own.filter(({ outcome }) => outcome === 'change');
    const restored = await this.carrying.restoreAssignments(
      queries,
      changed.map(({ assignmentId, before, writtenVersion }) => ({
        ...(before as AssignmentFacts),
        id: assignmentId!,
        version: writtenVersion!,
      })),
    );
    const removed = await this.carrying.removeAssignments(
      queries,
      own
        .filter(({ outcome }) => outcome === 'create')
        .map(({ assignmentId, writtenVersion }) => ({ id: assignmentId!, version: writtenVersion! })),
    );
    return own
      .filter(({ assignmentId }) => restored.has(assignmentId!) || removed.has(assignmentId!))
      .map(({ id }) => id);
  }
}
