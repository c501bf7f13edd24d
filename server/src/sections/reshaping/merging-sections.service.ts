import { Injectable } from '@nestjs/common';
import type {
  CarryOutMergeSectionsRequest,
  MergeSectionsPreviewReply,
  MergeSectionsRequest,
  MovedReply,
} from '#contract/sections';
import { listed } from '#contract/messages';
import type { NumberedAssignment } from '#server/calculation';
import { Changes, revisionOf } from '#server/changes';
import { countUses, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { factsOfMoves, MovePlanner, roomAfter, unmade, type PlannedMoves } from '../moving/move-planner.js';
import { OwnSectionsRepository, sectionUses, type KeptSection } from '../own-sections.repository.js';
import { valueOfSection } from '../section.thing.js';
import { BroughtAssignments } from './brought-assignments.js';
import { ReshapedSectionsRepository } from './reshaped-sections.repository.js';

interface PlannedMerge {
  readonly moves: PlannedMoves;
  readonly into: KeptSection;
  /** The sections as they are, and end. */
  readonly ending: readonly KeptSection[];
  /** Those in which nobody has sat, and which go. */
  readonly removed: readonly KeptSection[];
  /** The section that stays, as it will be. */
  readonly after: KeptSection;
  /** Assignments that it gets, for those who come with scores of them. */
  readonly brought: readonly NumberedAssignment[];
}

/** Makes one section of several: their students move to one of them, and the others end the day before. */
@Injectable()
export class MergingSectionsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly sections: OwnSectionsRepository,
    private readonly reshaped: ReshapedSectionsRepository,
    private readonly planner: MovePlanner,
    private readonly brought: BroughtAssignments,
    private readonly changes: Changes,
  ) {}

  preview(schoolId: number, request: MergeSectionsRequest): Promise<MergeSectionsPreviewReply> {
    return this.transactions.snapshot(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { moves, into, ending, removed, brought } = planned;
      return {
        previewId: idOf(planned),
        into: into.name,
        lastDay: moves.lastDay,
        ending: ending.map(({ name }) => name),
        removed: removed.map(({ name }) => name),
        rows: moves.moves.map(({ row }) => row),
        brought: brought.length,
        ...roomAfter(moves),
      };
    });
  }

  /** @throws Refusal cannot-move, preview-changed */
  async merge(
    actor: Actor,
    schoolId: number,
    { previewId, ...request }: CarryOutMergeSectionsRequest,
  ): Promise<MovedReply> {
    return this.transactions.run(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { moves, into, ending, removed, after, brought } = planned;
      const { copyOf, numbered } = await this.brought.numbered(queries, moves, brought);
      const { seatOf, seats, work } = await this.planner.carryOut(queries, numbered);
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      const section = (each: KeptSection) => ({ kind: 'section', id: String(each.id), after: valueOfSection(each) });
      await this.changes.make(queries, actor, {
        action: `merge ${listed([...ending, ...removed].map(({ name }) => name))} into ${into.name}`,
        edits: [
          // Before the sections: one from which all seats went can go.
          ...seats,
          ...this.brought.edits(into.id, brought, copyOf, seatOf),
          ...work,
          section(after),
          ...ending.map((each) => section({ ...each, endsOn: moves.lastDay })),
          ...removed.map(({ id }) => ({ kind: 'section', id: String(id), after: null })),
        ],
      });
      return { moved: moves.moves.length };
    });
  }

  private async plan(queries: Queries, schoolId: number, request: MergeSectionsRequest): Promise<PlannedMerge> {
    const target = await this.planner.targetOrThrow(queries, schoolId, request.intoId);
    const wanted = [...new Set(request.sectionIds)];
    const found = await this.sections.byIds(queries, [...wanted, target.id]);
    const into = found.find(({ id }) => id === target.id)!;
    const ending = wanted.map((id) => found.find((section) => section.id === id));
    // A section of another school is of another course too.
    if (
      ending.some(
        (section) => section?.courseId !== into.courseId || section.periodId !== into.periodId || section === into,
      )
    )
      throw fault('sectionIds', `other sections of the course of ${into.name} that run in the same period`);
    const sections = ending.map((section) => section!);
    const ids = await this.reshaped.stayingSeats(queries, wanted, request.enteredOn);
    const seats = await this.planner.seatsOrThrow(queries, schoolId, ids);
    const theirs = await this.brought.from(queries, wanted, request.enteredOn);
    const can = new Set(theirs.map(({ id }) => id));
    const moves = await this.planner.plan(queries, seats, target, request.enteredOn, can);
    const removed = await this.unbegunOrThrow(queries, sections, moves);
    const teaching = request.teachersStay
      ? sections.flatMap(({ teacherId, coTeacherIds }) => [teacherId, ...coTeacherIds])
      : [];
    const coTeachers = new Set([...into.coTeacherIds, ...teaching].filter((id) => id !== into.teacherId));
    return {
      moves,
      into,
      ending: sections.filter((section) => !removed.includes(section)),
      removed,
      after: { ...into, coTeacherIds: [...coTeachers].toSorted((a, b) => a - b) },
      brought: broughtBy(moves, theirs),
    };
  }

  /**
   * The sections that have not begun by the day: they have no day before it to end on, and go.
   * @throws Refusal fields-wrong where anything but seats that go along hangs on one of them
   */
  private async unbegunOrThrow(
    queries: Queries,
    sections: readonly KeptSection[],
    { moves, lastDay }: PlannedMoves,
  ): Promise<KeptSection[]> {
    const ids = sections.map(({ id }) => id);
    const firstDays = await this.reshaped.firstDays(queries, ids);
    const uses = await countUses(queries, sectionUses, ids);
    return sections.filter(({ id, name }) => {
      const from = firstDays.get(id)!;
      if (lastDay >= from) return false;
      const going = moves.filter(({ row, seat }) => row.isReseated && seat.sectionId === id).length;
      const { enrollment = 0, ...others } = uses.get(id) ?? {};
      if (enrollment > going || Object.keys(others).length > 0)
        throw fault('enteredOn', `a day after ${name} began on ${from}, as there is work in it`);
      return true;
    });
  }
}

/** Those that somebody has scores of, and only the section that is left has; given to who come from there and had them. */
function broughtBy({ moves }: PlannedMoves, theirs: readonly NumberedAssignment[]): NumberedAssignment[] {
  const scored = new Set(
    moves.flatMap(({ work }) => work.assignments.flatMap(([from, to]) => (to === unmade ? [from] : []))),
  );
  return theirs
    .filter(({ id }) => scored.has(id))
    .map((assignment) => {
      const coming = moves.flatMap(({ seat }) => (seat.sectionId === assignment.sectionId ? [seat.id] : []));
      return { ...assignment, givenTo: assignment.givenTo ?? coming };
    });
}

function fault(field: string, detail: string): Refusal {
  return new Refusal('fields-wrong', {}, [{ field, detail }]);
}

const idOf = ({ moves, ending, removed, after, brought }: PlannedMerge) =>
  revisionOf({
    ...factsOfMoves(moves),
    brought,
    ending: ending.map(valueOfSection),
    removed: removed.map(({ id }) => id),
    after: valueOfSection(after),
  });
