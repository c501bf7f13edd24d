import { Injectable } from '@nestjs/common';
import { counted } from '#contract/messages';
import type { CarryOutMoveRequest, MovedReply, MovePreviewReply, MoveRequest } from '#contract/sections';
import { Changes, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { factsOfMoves, MovePlanner, roomAfter, type PlannedMoves } from './move-planner.js';

/** Moves students from their section to another one, with the grades and scores that go along. */
@Injectable()
export class MovingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly planner: MovePlanner,
    private readonly changes: Changes,
  ) {}

  preview(schoolId: number, request: MoveRequest): Promise<MovePreviewReply> {
    return this.transactions.snapshot(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { target, lastDay, moves } = planned;
      return {
        previewId: idOf(planned),
        to: target.name,
        lastDay,
        rows: moves.map(({ row }) => row),
        ...roomAfter(planned),
      };
    });
  }

  /** All of them or none. @throws Refusal cannot-move, preview-changed where anything of it is otherwise by now */
  async move(actor: Actor, schoolId: number, { previewId, ...request }: CarryOutMoveRequest): Promise<MovedReply> {
    return this.transactions.run(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { target, moves } = planned;
      const { seats, work } = await this.planner.carryOut(queries, planned);
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      await this.changes.make(queries, actor, {
        action: `move ${moves.length === 1 ? moves[0]!.row.student : counted(moves.length, 'student')} to ${target.name}`,
        edits: [...seats, ...work],
      });
      return { moved: moves.length };
    });
  }

  private async plan(queries: Queries, schoolId: number, request: MoveRequest): Promise<PlannedMoves> {
    const seats = await this.planner.seatsOrThrow(queries, schoolId, request.enrollmentIds);
    const target = await this.planner.targetOrThrow(queries, schoolId, request.sectionId);
    return this.planner.plan(queries, seats, target, request.enteredOn);
  }
}

const idOf = (planned: PlannedMoves) => revisionOf(factsOfMoves(planned));
