import { Injectable } from '@nestjs/common';
import { addDays, parseDay, type Day } from '#core/calendar';
import { matchingAssignments, moveObstacle } from '#core/sections';
import { counted } from '#contract/messages';
import type {
  CarryOutMoveRequest,
  MovedReply,
  MovePreviewReply,
  MovePreviewRowReply,
  MoveRequest,
} from '#contract/sections';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { valueOfEnrollment } from '../enrollment.thing.js';
import { MovedWorkRepository, type LeftSeat, type MovedWork } from './moved-work.repository.js';

interface PlannedMove {
  readonly row: MovePreviewRowReply;
  readonly seat: LeftSeat;
  readonly work: MovedWork;
}

interface Planned {
  readonly to: string;
  readonly enteredOn: Day;
  /** In the section that is left. */
  readonly lastDay: Day;
  readonly moves: readonly PlannedMove[];
  /** Periods whose grades move. */
  readonly periodIds: readonly number[];
}

/** Moves students from their section to another one, with the grades and scores that go along. */
@Injectable()
export class MovingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly works: MovedWorkRepository,
    private readonly periods: PeriodsRepository,
    private readonly changes: Changes,
  ) {}

  preview(schoolId: number, request: MoveRequest): Promise<MovePreviewReply> {
    return this.transactions.snapshot(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { to, lastDay, moves } = planned;
      return { previewId: idOf(planned), to, lastDay, rows: moves.map(({ row }) => row) };
    });
  }

  /** All of them or none. @throws Refusal cannot-move, preview-changed where anything of it is otherwise by now */
  async move(actor: Actor, schoolId: number, { previewId, ...request }: CarryOutMoveRequest): Promise<MovedReply> {
    return this.transactions.run(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { to, enteredOn, lastDay, moves, periodIds } = planned;
      const stuck = moves.filter(({ row }) => row.obstacle !== null).length;
      if (stuck > 0) throw new Refusal('cannot-move', { count: counted(stuck, 'student') });
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      for (const id of periodIds)
        await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
      const ids = await nextIds(queries, 'enrollments', moves.length);
      const { sectionId } = request;
      await this.changes.make(queries, actor, {
        action: `move ${moves.length === 1 ? moves[0]!.row.student : counted(moves.length, 'student')} to ${to}`,
        edits: [
          ...moves.flatMap(({ seat }, at) => [
            {
              kind: 'enrollment',
              id: String(ids[at]),
              after: { sectionId, studentId: seat.studentId, enteredOn, withdrawnOn: null },
            },
            { kind: 'enrollment', id: String(seat.id), after: { ...valueOfEnrollment(seat), withdrawnOn: lastDay } },
          ]),
          ...moves.map(({ work }, at) => ({ kind: 'moved-work', id: String(ids[at]), after: work })),
        ],
      });
      return { moved: moves.length };
    });
  }

  private async plan(queries: Queries, schoolId: number, request: MoveRequest): Promise<Planned> {
    const enteredOn = parseDay(request.enteredOn);
    if (!enteredOn) throw new Refusal('fields-wrong', {}, [{ field: 'enteredOn', detail: 'a day of the calendar' }]);
    const wanted = [...new Set(request.enrollmentIds)];
    const seats = await this.works.seats(queries, schoolId, wanted);
    const missing = wanted.find((id) => !seats.some((seat) => seat.id === id));
    if (missing !== undefined) throw new Refusal('not-found', { what: 'enrollment', id: missing });
    const target = await this.works.target(queries, schoolId, request.sectionId);
    if (!target) throw new Refusal('not-found', { what: 'section', id: request.sectionId });
    const grades = await this.works.gradesFrom(queries, wanted, enteredOn);
    const sectionIds = [...new Set([target.id, ...seats.map(({ sectionId }) => sectionId)])];
    const assignments = await this.works.assignmentsFrom(queries, sectionIds, enteredOn);
    const of = (sectionId: number) => assignments.filter((each) => each.sectionId === sectionId);
    const pairs = new Map(sectionIds.map((id) => [id, matchingAssignments(of(id), of(target.id)).pairs]));
    const scored = await this.works.scored(
      queries,
      wanted,
      assignments.map(({ id }) => id),
    );
    const moves = seats.map((seat): PlannedMove => {
      const has = new Set(
        scored.flatMap(({ enrollmentId, assignmentId }) => (enrollmentId === seat.id ? [assignmentId] : [])),
      );
      const work: MovedWork = {
        fromId: seat.id,
        grades: grades.flatMap(({ enrollmentId, id, version }) =>
          enrollmentId === seat.id ? [[id, version] as const] : [],
        ),
        assignments: pairs.get(seat.sectionId)!.filter(([from]) => has.has(from)),
      };
      const row = {
        enrollmentId: seat.id,
        student: seat.student,
        from: seat.section,
        grades: work.grades.length,
        scores: work.assignments.length,
        left: has.size - work.assignments.length,
        obstacle: moveObstacle(seat, target, enteredOn),
      };
      return { row, seat, work };
    });
    const periodIds = [...new Set(grades.map(({ periodId }) => periodId))].toSorted((a, b) => a - b);
    return { to: target.name, enteredOn, lastDay: addDays(enteredOn, -1), moves, periodIds };
  }
}

/** Another one where anything that would be written, or stands in the way, is another. */
const idOf = ({ enteredOn, moves }: Planned) => revisionOf({ enteredOn, moves });
