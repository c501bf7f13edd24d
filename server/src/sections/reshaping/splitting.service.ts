import { Injectable } from '@nestjs/common';
import { sectionName } from '#core/courses';
import type { OwnSection } from '#core/sections';
import type {
  CarryOutSplitSectionRequest,
  MovedReply,
  SplitSectionPreviewReply,
  SplitSectionRequest,
} from '#contract/sections';
import type { NumberedAssignment } from '#server/calculation';
import { Changes, revisionOf } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { factsOfMoves, MovePlanner, roomAfter, unmade, type PlannedMoves } from '../moving/move-planner.js';
import { OwnSectionsRepository } from '../own-sections.repository.js';
import { valueOfSection } from '../section.thing.js';
import { BroughtAssignments } from './brought-assignments.js';
import { ReshapedSectionsRepository } from './reshaped-sections.repository.js';

interface PlannedSplit {
  readonly moves: PlannedMoves;
  readonly from: string;
  /** The section that is made. */
  readonly section: OwnSection;
  /** Assignments that it gets too, as they stand in the section that is split. */
  readonly copied: readonly NumberedAssignment[];
  readonly without: SplitSectionPreviewReply['without'];
}

/** Gives a part of the students of a section a section of their own, with the same assignments. */
@Injectable()
export class SplittingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly sections: OwnSectionsRepository,
    private readonly reshaped: ReshapedSectionsRepository,
    private readonly planner: MovePlanner,
    private readonly brought: BroughtAssignments,
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
      const { copyOf, numbered } = await this.brought.numbered(queries, moves, copied);
      const target = { ...moves.target, id: sectionId };
      const { seatOf, seats, work } = await this.planner.carryOut(queries, { ...numbered, target });
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      await this.changes.make(queries, actor, {
        action: `split ${moves.target.name} from ${from}`,
        edits: [
          { kind: 'section', id: String(sectionId), after: section },
          ...seats,
          ...this.brought.edits(sectionId, copied, copyOf, seatOf),
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
    // What was given to single students goes to those of them who move.
    const copied = (await this.brought.from(queries, [source.id], request.enteredOn)).filter(
      ({ givenTo }) => givenTo === null || givenTo.some((seat) => ids.has(seat)),
    );
    const target = {
      ...source,
      id: unmade,
      name: sectionName(title, number),
      studentIds: [],
      staying: 0,
      seats: request.seats,
    };
    return {
      moves: await this.planner.plan(queries, seats, target, request.enteredOn, new Set(copied.map(({ id }) => id))),
      from: source.name,
      section: {
        ...valueOfSection(own),
        number,
        teacherId: request.teacherId,
        coTeacherIds: [],
        seats: request.seats,
        startsOn: request.enteredOn,
      },
      copied,
      without: await this.reshaped.ownSetUp(queries, source.id),
    };
  }
}

const idOf = ({ moves, section, copied, without }: PlannedSplit) =>
  revisionOf({ ...factsOfMoves(moves), section, copied, without });
