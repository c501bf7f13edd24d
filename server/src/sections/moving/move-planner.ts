import { Injectable } from '@nestjs/common';
import { addDays, type Day } from '#core/calendar';
import { isReseated, matchingAssignments, moveObstacle, type OwnEnrollment } from '#core/sections';
import { counted } from '#contract/messages';
import type { MovePreviewRowReply, RoomReply } from '#contract/sections';
import { PeriodsRepository } from '#server/calendar';
import type { Edit } from '#server/changes';
import { nextIds, Refusal, type Queries } from '#server/platform';
import { valueOfEnrollment } from '../enrollment.thing.js';
import { MovedWorkRepository, type LeftSeat, type MovedWork, type NamedTarget } from './moved-work.repository.js';

interface PlannedMove {
  readonly row: MovePreviewRowReply;
  readonly seat: LeftSeat;
  readonly work: MovedWork;
}

/** Students who are to leave their seats for one section, and what goes along. */
export interface PlannedMoves {
  readonly target: NamedTarget;
  readonly enteredOn: Day;
  /** In the section that is left. */
  readonly lastDay: Day;
  readonly moves: readonly PlannedMove[];
  /** Periods whose grades or scores move. */
  readonly periodIds: readonly number[];
}

/** Stands for what gets its number only once it is made. */
export const unmade = 0;

/** What moving students between sections does, whyever it is done: one by one, or as sections become one or two. */
@Injectable()
export class MovePlanner {
  constructor(
    private readonly works: MovedWorkRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  /** @throws Refusal not-found where one of the seats is none of the school's */
  async seatsOrThrow(queries: Queries, schoolId: number, enrollmentIds: readonly number[]): Promise<LeftSeat[]> {
    const wanted = [...new Set(enrollmentIds)];
    const seats = await this.works.seats(queries, schoolId, wanted);
    const missing = wanted.find((id) => !seats.some((seat) => seat.id === id));
    if (missing !== undefined) throw new Refusal('not-found', { what: 'enrollment', id: missing });
    return seats;
  }

  /** @throws Refusal not-found where the school has no such section */
  async targetOrThrow(queries: Queries, schoolId: number, sectionId: number): Promise<NamedTarget> {
    const target = await this.works.target(queries, schoolId, sectionId);
    if (!target) throw new Refusal('not-found', { what: 'section', id: sectionId });
    return target;
  }

  /** @param brought assignments that come along as unmade ones, where the section that students come to has not got them */
  async plan(
    queries: Queries,
    seats: readonly LeftSeat[],
    target: NamedTarget,
    enteredOn: Day,
    brought: ReadonlySet<number> = new Set(),
  ): Promise<PlannedMoves> {
    const seatIds = seats.map(({ id }) => id);
    const grades = await this.works.gradesFrom(queries, seatIds, enteredOn);
    const sectionIds = [...new Set([target.id, ...seats.map(({ sectionId }) => sectionId)])];
    const assignments = await this.works.assignmentsFrom(queries, sectionIds, enteredOn);
    const of = (sectionId: number) => assignments.filter((each) => each.sectionId === sectionId);
    const theirs = of(target.id).filter(({ isForAll }) => isForAll);
    const pairsFrom = (sectionId: number) => {
      const { pairs, without } = matchingAssignments(of(sectionId), theirs);
      return [...pairs, ...without.flatMap(({ id }) => (brought.has(id) ? [[id, unmade] as const] : []))];
    };
    const pairs = new Map(sectionIds.map((id) => [id, pairsFrom(id)]));
    const scored = await this.works.scored(
      queries,
      seatIds,
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
        isReseated: isReseated(seat, enteredOn),
        obstacle: moveObstacle(seat, target, enteredOn),
      };
      return { row, seat, work };
    });
    const taken = new Set(moves.flatMap(({ work }) => work.assignments.map(([from]) => from)));
    const touched = [...grades, ...assignments.filter(({ id }) => taken.has(id))];
    const periodIds = [...new Set(touched.map(({ periodId }) => periodId))].toSorted((a, b) => a - b);
    return { target, enteredOn, lastDay: addDays(enteredOn, -1), moves, periodIds };
  }

  /**
   * What a change has to do, after its periods were held so that none is sealed meanwhile.
   * @throws Refusal cannot-move where something stands in the way of one of them
   */
  async carryOut(queries: Queries, { target, enteredOn, lastDay, moves, periodIds }: PlannedMoves): Promise<MoveEdits> {
    const stuck = moves.filter(({ row }) => row.obstacle !== null).length;
    if (stuck > 0) throw new Refusal('cannot-move', { count: counted(stuck, 'student') });
    for (const id of periodIds)
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
    const reseated = moves.filter(({ row }) => row.isReseated).map(({ seat }) => seat);
    const leaving = moves.filter(({ row }) => !row.isReseated);
    const ids = await nextIds(queries, 'enrollments', leaving.length);
    const edit = (id: number, after: OwnEnrollment): Edit => ({ kind: 'enrollment', id: String(id), after });
    return {
      seatOf: new Map([
        ...reseated.map(({ id }) => [id, id] as const),
        ...leaving.map(({ seat }, at) => [seat.id, ids[at]!] as const),
      ]),
      seats: [
        ...reseated.map((seat) => edit(seat.id, { ...valueOfEnrollment(seat), ...cameTo(target, seat) })),
        ...leaving.flatMap(({ seat: { id, ...seat } }, at) => [
          edit(ids[at]!, { sectionId: target.id, studentId: seat.studentId, enteredOn, withdrawnOn: null }),
          edit(id, { ...valueOfEnrollment(seat), withdrawnOn: lastDay }),
        ]),
      ],
      work: leaving.map(({ work }, at) => ({ kind: 'moved-work', id: String(ids[at]), after: work })),
    };
  }
}

/** Who has not sat in the old section comes to the new one as soon, or when it begins. */
function cameTo({ id, startsOn }: NamedTarget, { enteredOn }: LeftSeat) {
  return { sectionId: id, enteredOn: enteredOn < startsOn ? startsOn : enteredOn };
}

export interface MoveEdits {
  /** The new seat of each old one, by their numbers. */
  readonly seatOf: ReadonlyMap<number, number>;
  readonly seats: readonly Edit[];
  /** To be written after the seats. */
  readonly work: readonly Edit[];
}

/** How many sit in the section afterwards, and how many it has room for. */
export function roomAfter({ target, moves }: PlannedMoves): RoomReply {
  return { staying: target.staying + moves.length, seats: target.seats };
}

/** What is the same exactly as long as nothing that would be written, or stands in the way, is another. */
export function factsOfMoves({ enteredOn, moves }: PlannedMoves) {
  return { enteredOn, moves };
}
