import { Injectable } from '@nestjs/common';
import type { Day } from '#core/calendar';
import { assignmentName, BooksRepository, type NumberedAssignment } from '#server/calculation';
import type { Edit } from '#server/changes';
import { nextIds, type Queries } from '#server/platform';
import { unmade, type PlannedMoves } from '../moving/move-planner.js';
import { ReshapedSectionsRepository } from './reshaped-sections.repository.js';

/** Copies of assignments, by the number of the one that each is a copy of. */
export type CopyOf = ReadonlyMap<number, number>;

/** Assignments that a section gets from the one that students leave for it, so that their scores go along. */
@Injectable()
export class BroughtAssignments {
  constructor(
    private readonly books: BooksRepository,
    private readonly reshaped: ReshapedSectionsRepository,
  ) {}

  /** What of the books of some sections may go to another section of their course, as students leave them on a day. */
  async from(queries: Queries, sectionIds: readonly number[], day: Day): Promise<NumberedAssignment[]> {
    const can = await this.reshaped.copyable(queries, sectionIds, day);
    return (await this.books.assignmentsOfSections(queries, sectionIds)).filter(({ id }) => can.has(id));
  }

  /** The moves, with the numbers of the copies in place of those that were not known when they were planned. */
  async numbered(
    queries: Queries,
    moves: PlannedMoves,
    brought: readonly NumberedAssignment[],
  ): Promise<{ readonly copyOf: CopyOf; readonly numbered: PlannedMoves }> {
    const ids = await nextIds(queries, 'assignments', brought.length);
    const copyOf = new Map(brought.map(({ id }, at) => [id, ids[at]!]));
    const numberedMoves = moves.moves.map((move) => {
      const assignments = move.work.assignments.map(
        ([from, to]) => [from, to === unmade ? copyOf.get(from)! : to] as const,
      );
      return { ...move, work: { ...move.work, assignments } };
    });
    return { copyOf, numbered: { ...moves, moves: numberedMoves } };
  }

  /** @param seatOf the new seat of each that is left, by which an assignment is given to the same students */
  edits(
    sectionId: number,
    brought: readonly NumberedAssignment[],
    copyOf: CopyOf,
    seatOf: ReadonlyMap<number, number>,
  ): Edit[] {
    return brought.map(({ id, ...assignment }) => {
      const givenTo = assignment.givenTo?.flatMap((seat) => seatOf.get(seat) ?? []) ?? null;
      const after = { ...assignment, sectionId, givenTo };
      return { kind: 'brought-assignment', id: assignmentName(after, copyOf.get(id)!), after };
    });
  }
}
