import { Injectable } from '@nestjs/common';
import { addDays, parseDay, type Day } from '#core/calendar';
import { matchingAssignments } from '#core/sections';
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
import { nextIds, Refusal, Transactions, Whereabouts, type Actor, type Queries } from '#server/platform';
import { MovedSeatsRepository, type LeftSeat, type MovedSeat } from './moved-seats.repository.js';

interface PlannedMove {
  readonly row: MovePreviewRowReply;
  readonly seat: MovedSeat;
}

interface Planned {
  readonly to: string;
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
    private readonly seats: MovedSeatsRepository,
    private readonly periods: PeriodsRepository,
    private readonly whereabouts: Whereabouts,
    private readonly changes: Changes,
  ) {}

  preview(actor: Actor, schoolId: number, request: MoveRequest): Promise<MovePreviewReply> {
    return this.transactions.snapshot(async (queries) => {
      const planned = await this.plan(queries, actor, schoolId, request);
      const { to, lastDay, moves } = planned;
      return { previewId: idOf(planned), to, lastDay, rows: moves.map(({ row }) => row) };
    });
  }

  /** All of them or none. @throws Refusal cannot-move, preview-changed where anything of it is otherwise by now */
  async move(actor: Actor, schoolId: number, { previewId, ...request }: CarryOutMoveRequest): Promise<MovedReply> {
    return this.transactions.run(async (queries) => {
      const planned = await this.plan(queries, actor, schoolId, request);
      const { to, moves, periodIds } = planned;
      const obstacles = moves.flatMap(({ row: { student, obstacle } }) =>
        obstacle ? [`${student}: ${obstacle}`] : [],
      );
      if (obstacles.length > 0) throw new Refusal('cannot-move', { reasons: obstacles.join(' ') });
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      for (const id of periodIds)
        await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
      const ids = await nextIds(queries, 'enrollments', moves.length);
      const whom = moves.length === 1 ? moves[0]!.row.student : counted(moves.length, 'student');
      await this.changes.make(queries, actor, {
        action: `move ${whom} to ${to}`,
        edits: moves.map(({ seat }, at) => ({ kind: 'moved-seat', id: String(ids[at]), after: seat })),
      });
      return { moved: moves.length };
    });
  }

  private async plan(queries: Queries, actor: Actor, schoolId: number, request: MoveRequest): Promise<Planned> {
    const { sectionId } = request;
    const enteredOn = parseDay(request.enteredOn);
    if (!enteredOn) throw new Refusal('fields-wrong', {}, [{ field: 'enteredOn', detail: 'a day of the calendar' }]);
    const wanted = [...new Set(request.enrollmentIds)];
    const seats = await this.seats.seats(queries, wanted);
    const missing = wanted.find((id) => !seats.some((seat) => seat.id === id));
    if (missing !== undefined) throw new Refusal('not-found', { what: 'enrollment', id: missing });
    const places = [
      ...wanted.map((id) => ({ kind: 'enrollment' as const, id })),
      { kind: 'section' as const, id: sectionId },
    ];
    const where = await this.whereabouts.of(queries, places);
    if (
      where.some((each) => each?.schoolId !== schoolId) ||
      !(await this.whereabouts.may(actor, 'change-people', places, queries))
    )
      throw new Refusal('not-found', { what: 'enrollment of the school', id: wanted[0]! });
    const target = await this.seats.target(queries, sectionId);
    if (!target) throw new Refusal('not-found', { what: 'section', id: sectionId });
    const lastDay = addDays(enteredOn, -1);
    const grades = await this.seats.gradesFrom(queries, wanted, enteredOn);
    const theirs = await this.seats.assignmentsFrom(queries, sectionId, enteredOn);
    const moves: PlannedMove[] = [];
    for (const from of new Set(seats.map((seat) => seat.sectionId))) {
      const own = seats.filter((seat) => seat.sectionId === from);
      const ours = await this.seats.assignmentsFrom(queries, from, enteredOn);
      const { pairs } = matchingAssignments(ours, theirs);
      const scored = await this.seats.scored(
        queries,
        own.map(({ id }) => id),
        ours.map(({ id }) => id),
      );
      for (const seat of own) {
        const has = new Set(
          scored.filter(({ enrollmentId }) => enrollmentId === seat.id).map((each) => each.assignmentId),
        );
        const assignments = pairs.filter(([one]) => has.has(one));
        const moved = grades.filter(({ enrollmentId }) => enrollmentId === seat.id).map(({ id }) => id);
        moves.push({
          row: {
            enrollmentId: seat.id,
            student: seat.student,
            from: seat.section,
            grades: moved.length,
            scores: assignments.length,
            left: has.size - assignments.length,
            obstacle: obstacleOf(seat, { ...target, id: sectionId }, enteredOn),
          },
          seat: {
            fromId: seat.id,
            before: seat.withdrawnOn,
            lastDay,
            sectionId,
            studentId: seat.studentId,
            enteredOn,
            grades: moved,
            assignments,
          },
        });
      }
    }
    const periodIds = [...new Set(grades.map(({ periodId }) => periodId))].toSorted((a, b) => a - b);
    return { to: target.name, lastDay, moves, periodIds };
  }
}

interface Target {
  readonly id: number;
  readonly name: string;
  readonly startsOn: string;
  readonly endsOn: string;
  readonly students: readonly number[];
}

/** Why a student cannot come to a section on a day; null where nothing stands in the way. */
function obstacleOf(seat: LeftSeat, target: Target, enteredOn: Day): string | null {
  if (seat.sectionId === target.id) return `sits in ${target.name} already.`;
  if (target.students.includes(seat.studentId)) return `has, or had, a seat in ${target.name} already.`;
  if (enteredOn < target.startsOn || enteredOn > target.endsOn)
    return `${target.name} runs from ${target.startsOn} to ${target.endsOn}.`;
  if (enteredOn <= seat.enteredOn) return `came to ${seat.section} on ${seat.enteredOn}: choose a later day.`;
  if (seat.withdrawnOn !== null && seat.withdrawnOn < enteredOn) return `left ${seat.section} on ${seat.withdrawnOn}.`;
  return null;
}

const idOf = ({ moves }: Planned) => revisionOf(moves);
