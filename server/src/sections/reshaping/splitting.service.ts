import { Injectable } from '@nestjs/common';
import { sectionName } from '#core/courses';
import type { OwnSection } from '#core/sections';
import type {
  CarryOutSplitSectionRequest,
  MovedReply,
  SplitSectionPreviewReply,
  SplitSectionRequest,
} from '#contract/sections';
import { Changes, revisionOf } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { factsOfMoves, MovePlanner, roomAfter, type PlannedMoves } from '../moving/move-planner.js';
import { OwnSectionsRepository } from '../own-sections.repository.js';
import { valueOfSection } from '../section.thing.js';
import { ReshapedSectionsRepository } from './reshaped-sections.repository.js';

/** What is to be known here of an assignment: all else of it is copied as it stands. */
interface CopiedAssignment {
  readonly id: number;
  /** The enrollments it is given to; null for everybody. */
  readonly givenTo: readonly number[] | null;
}

interface PlannedSplit {
  readonly moves: PlannedMoves;
  readonly from: string;
  /** The section that is made. */
  readonly section: OwnSection;
  /** Assignments that it gets too, as they stand in the section that is split. */
  readonly copied: readonly CopiedAssignment[];
  readonly without: SplitSectionPreviewReply['without'];
}

/** Stands for what gets its number only once it is made. */
const unmade = 0;

/** Gives a part of the students of a section a section of their own, with the same assignments. */
@Injectable()
export class SplittingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly sections: OwnSectionsRepository,
    private readonly reshaped: ReshapedSectionsRepository,
    private readonly planner: MovePlanner,
    private readonly changes: Changes,
  ) {}

  preview(schoolId: number, request: SplitSectionRequest): Promise<SplitSectionPreviewReply> {
    return this.transactions.snapshot(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { moves, copied, without } = planned;
      return {
        previewId: idOf(planned),
        name: moves.target.name,
        lastDay: moves.lastDay,
        rows: moves.moves.map(({ row }) => row),
        ...roomAfter(moves),
        assignments: copied.length,
        without,
      };
    });
  }

  /** @throws Refusal cannot-move, preview-changed */
  async split(
    actor: Actor,
    schoolId: number,
    { previewId, ...request }: CarryOutSplitSectionRequest,
  ): Promise<MovedReply> {
    return this.transactions.run(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { moves, section, from, copied } = planned;
      const [sectionId] = (await nextIds(queries, 'sections', 1)) as [number];
      const copies = await nextIds(queries, 'assignments', copied.length);
      const copyOf = new Map(copied.map(({ id }, at) => [id, copies[at]!]));
      const { seatOf, seats, work } = await this.planner.carryOut(queries, {
        ...moves,
        target: { ...moves.target, id: sectionId },
        moves: moves.moves.map((move) => ({
          ...move,
          work: { ...move.work, assignments: move.work.assignments.map(([id]) => [id, copyOf.get(id)!] as const) },
        })),
      });
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      const assignments = copied.map(({ givenTo, ...assignment }) => ({
        ...assignment,
        id: copyOf.get(assignment.id)!,
        sectionId,
        givenTo: givenTo?.flatMap((seat) => seatOf.get(seat) ?? []) ?? null,
      }));
      await this.changes.make(queries, actor, {
        action: `split ${moves.target.name} from ${from}`,
        edits: [
          { kind: 'section', id: String(sectionId), after: section },
          ...seats,
          {
            kind: 'section-assignments',
            id: String(sectionId),
            after: assignments.length > 0 ? { assignments } : null,
          },
          ...work,
        ],
      });
      return { moved: moves.moves.length };
    });
  }

  private async plan(queries: Queries, schoolId: number, request: SplitSectionRequest): Promise<PlannedSplit> {
    const source = await this.planner.targetOrThrow(queries, schoolId, request.sectionId);
    const own = (await this.sections.byIds(queries, [source.id]))[0]!;
    const seats = await this.planner.seatsOrThrow(queries, schoolId, request.enrollmentIds);
    if (seats.some(({ sectionId }) => sectionId !== source.id))
      throw new Refusal('fields-wrong', {}, [{ field: 'enrollmentIds', detail: `students of ${source.name}` }]);
    const { title, number } = await this.reshaped.nextNumber(queries, own);
    const ids = new Set(seats.map(({ id }) => id));
    const { copied, without } = await this.reshaped.bookFrom(queries, source.id, request.enteredOn);
    const book = await this.changes.valueOf<{ readonly assignments: readonly CopiedAssignment[] }>(
      queries,
      'section-assignments',
      String(source.id),
    );
    // What was given to single students goes to those of them who move.
    const concerned = (book?.assignments ?? []).filter(
      ({ id, givenTo }) => copied.has(id) && (givenTo === null || givenTo.some((seat) => ids.has(seat))),
    );
    const target = {
      ...source,
      id: unmade,
      name: sectionName(title, number),
      studentIds: [],
      staying: 0,
      seats: request.seats,
    };
    const pairs = new Map([[source.id, concerned.map(({ id }) => [id, unmade] as const)]]);
    return {
      moves: await this.planner.plan(queries, seats, target, request.enteredOn, pairs),
      from: source.name,
      section: {
        ...valueOfSection(own),
        number,
        teacherId: request.teacherId,
        coTeacherIds: [],
        seats: request.seats,
        startsOn: request.enteredOn,
      },
      copied: concerned,
      without,
    };
  }
}

const idOf = ({ moves, section, copied, without }: PlannedSplit) =>
  revisionOf({ ...factsOfMoves(moves), section, copied, without });
