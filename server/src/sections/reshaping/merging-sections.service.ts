import { Injectable } from '@nestjs/common';
import { addDays } from '#core/calendar';
import type {
  CarryOutMergeSectionsRequest,
  MergeSectionsPreviewReply,
  MergeSectionsRequest,
  MovedReply,
} from '#contract/sections';
import { listed } from '#contract/messages';
import { Changes, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { dayOfMoveOrThrow, factsOfMoves, MovePlanner, roomAfter, type PlannedMoves } from '../moving/move-planner.js';
import { OwnSectionsRepository, type KeptSection } from '../own-sections.repository.js';
import { valueOfSection } from '../section.thing.js';
import { ReshapedSectionsRepository } from './reshaped-sections.repository.js';

interface PlannedMerge {
  readonly moves: PlannedMoves;
  readonly into: KeptSection;
  /** The sections as they are, and end. */
  readonly ending: readonly KeptSection[];
  /** The section that stays, as it will be. */
  readonly after: KeptSection;
}

/** Makes one section of several: their students move to one of them, and the others end the day before. */
@Injectable()
export class MergingSectionsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly sections: OwnSectionsRepository,
    private readonly reshaped: ReshapedSectionsRepository,
    private readonly planner: MovePlanner,
    private readonly changes: Changes,
  ) {}

  preview(schoolId: number, request: MergeSectionsRequest): Promise<MergeSectionsPreviewReply> {
    return this.transactions.snapshot(async (queries) => {
      const planned = await this.plan(queries, schoolId, request);
      const { moves, into, ending } = planned;
      return {
        previewId: idOf(planned),
        into: into.name,
        lastDay: moves.lastDay,
        ending: ending.map(({ name }) => name),
        rows: moves.moves.map(({ row }) => row),
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
      const { moves, into, ending, after } = planned;
      const { seats, work } = await this.planner.carryOut(queries, moves);
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      const section = (each: KeptSection) => ({ kind: 'section', id: String(each.id), after: valueOfSection(each) });
      await this.changes.make(queries, actor, {
        action: `merge ${listed(ending.map(({ name }) => name))} into ${into.name}`,
        edits: [
          section(after),
          ...ending.map((each) => section({ ...each, endsOn: moves.lastDay })),
          ...seats,
          ...work,
        ],
      });
      return { moved: moves.moves.length };
    });
  }

  private async plan(queries: Queries, schoolId: number, request: MergeSectionsRequest): Promise<PlannedMerge> {
    const enteredOn = dayOfMoveOrThrow(request.enteredOn);
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
    for (const { name, from } of await this.reshaped.firstDays(queries, wanted))
      if (addDays(enteredOn, -1) < from) throw fault('enteredOn', `a day after ${name} began on ${from}`);
    const ids = await this.reshaped.stayingSeats(queries, wanted, enteredOn);
    const seats = await this.planner.seatsOrThrow(queries, schoolId, ids);
    const moves = await this.planner.plan(queries, seats, target, enteredOn);
    const teaching = request.teachersStay
      ? sections.flatMap(({ teacherId, coTeacherIds }) => [teacherId, ...coTeacherIds])
      : [];
    const coTeachers = new Set([...into.coTeacherIds, ...teaching].filter((id) => id !== into.teacherId));
    return {
      moves,
      into,
      ending: sections,
      after: { ...into, coTeacherIds: [...coTeachers].toSorted((a, b) => a - b) },
    };
  }
}

function fault(field: string, detail: string): Refusal {
  return new Refusal('fields-wrong', {}, [{ field, detail }]);
}

const idOf = ({ moves, ending, after }: PlannedMerge) =>
  revisionOf({ ...factsOfMoves(moves), ending: ending.map(valueOfSection), after: valueOfSection(after) });
