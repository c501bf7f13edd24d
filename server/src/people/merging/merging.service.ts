import { Injectable } from '@nestjs/common';
import { mayAt, ofSchool } from '#core/access';
import { cellsOfPerson, mergePeople, mergeSeats, spokenName } from '#core/people';
import type {
  CarryOutMergeRequest,
  DifferentPeopleReply,
  DifferentPeopleRequest,
  DuplicateRecordReply,
  DuplicateReply,
  MergePreviewReply,
  MergeRequest,
  PeopleReply,
} from '#contract/people';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import {
  CopyReader,
  countUses,
  Refusal,
  ThreadPool,
  Transactions,
  workerFile,
  type Actor,
  type Queries,
} from '#server/platform';
import { PeopleService } from '../people.service.js';
import { valueOfPerson } from '../person.thing.js';
import { personUses, RosterRepository, type KeptPerson } from '../roster.repository.js';
import type { FoundPair } from './duplicates-worker.js';
import { DifferentPeopleThing, idOfPair, pairOfId } from './different-people.thing.js';
import { MergedPeopleRepository, type MergedRecord } from './merged-people.repository.js';

/** A merge as it would be made. */
interface PlannedMerge extends Pick<MergePreviewReply, 'filled' | 'shared' | 'obstacles'> {
  readonly kept: KeptPerson;
  readonly gone: KeptPerson;
  readonly after: KeptPerson;
  readonly record: MergedRecord;
  /** Numbers of the seats that go. */
  readonly dropped: readonly number[];
}

/** Of what names a person: the seats of a student, and the account of one of the staff. */
const [seats, account] = ['enrollments.student_id', 'accounts.person_id'] as const;

/** As many as are asked about at once. */
const mostPairs = 1000;

/** All that is compared of everybody. */
const comparedPeople = `
  SELECT id, kind, coalesce(number, CASE WHEN is_made_here THEN NULL ELSE sourced_id END), given_name, family_name, email, birth_date
  FROM people ORDER BY family_name, given_name, id`;

/** Finds records that may be of one person, and makes one of two. */
@Injectable()
export class MergingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly roster: RosterRepository,
    private readonly merged: MergedPeopleRepository,
    private readonly different: DifferentPeopleThing,
    private readonly periods: PeriodsRepository,
    private readonly people: PeopleService,
    private readonly changes: Changes,
    private readonly copies: CopyReader,
    private readonly threads: ThreadPool,
  ) {}

  /** Pairs of which at least one is of the school, the likeliest; of the other schools only what somebody may read. */
  async duplicates(actor: Actor, schoolId: number): Promise<DuplicateReply[]> {
    const text = await this.copies.read(comparedPeople);
    const worker = workerFile(new URL('./duplicates-worker.js', import.meta.url));
    const found = await this.threads.run<FoundPair[]>(worker, { text });
    return this.transactions.snapshot(async (queries) => {
      const ids = [...new Set(found.flatMap(({ one, other }) => [one, other]))];
      const people = (await this.roster.byIds(queries, ids)).filter((person) =>
        mayAt(actor, 'read-people', ofSchool(person.schoolId ?? schoolId)),
      );
      const byId = new Map(people.map((person) => [person.id, person]));
      const parted = new Set(await this.different.pairs(queries));
      const pairs = found
        .flatMap(({ one, other, reasons }) => {
          const both = [byId.get(one), byId.get(other)] as const;
          if (!both[0] || !both[1] || parted.has(idOfPair(one, other))) return [];
          const isHere = both.some((person) => (person!.schoolId ?? schoolId) === schoolId);
          return isHere ? [{ one: both[0], other: both[1], reasons }] : [];
        })
        .slice(0, mostPairs);
      const records = await this.recordsOf(
        queries,
        pairs.flatMap(({ one, other }) => [one, other]),
      );
      return pairs.map(({ one, other, reasons }) => ({
        one: records.get(one.id)!,
        other: records.get(other.id)!,
        reasons,
      }));
    });
  }

  /** Two that look alike stay two. */
  async sayDifferent(actor: Actor, { oneId, otherId }: DifferentPeopleRequest): Promise<DifferentPeopleReply> {
    return this.transactions.run(async (queries) => {
      const [one, other] = await this.bothOrThrow(queries, oneId, otherId, 'otherId');
      const id = idOfPair(oneId, otherId);
      const pair = pairOfId(id);
      const known = await this.different.read(queries, [id]);
      if (!known.has(id))
        await this.changes.make(queries, actor, {
          action: `say that ${spokenName(one)} and ${spokenName(other)} are two people`,
          edits: [{ kind: 'different-people', id, after: pair }],
        });
      return pair;
    });
  }

  async preview(request: MergeRequest): Promise<MergePreviewReply> {
    return this.transactions.snapshot(async (queries) => this.told(queries, await this.plan(queries, request)));
  }

  /** @throws Refusal cannot-merge, preview-changed where anything of it moved since it was looked at */
  async merge(actor: Actor, schoolId: number, { previewId, ...request }: CarryOutMergeRequest): Promise<PeopleReply> {
    return this.transactions.run(async (queries) => {
      await this.roster.holdNumbers(queries);
      const planned = await this.plan(queries, request);
      const { kept, gone, after, record, dropped, obstacles } = planned;
      if (obstacles.length > 0) throw new Refusal('cannot-merge');
      if (idOf(planned) !== previewId) throw new Refusal('preview-changed');
      await this.changes.make(queries, actor, {
        action: `merge ${spokenName(gone)} into ${spokenName(kept)}`,
        edits: [
          ...(await this.different.pairs(queries, gone.id)).map((id) => ({
            kind: 'different-people',
            id,
            after: null,
          })),
          ...dropped.map((id) => ({ kind: 'enrollment', id: String(id), after: null })),
          { kind: 'merged-person', id: String(gone.id), after: record },
          { kind: 'person', id: String(gone.id), after: null },
          { kind: 'person', id: String(kept.id), after: valueOfPerson(after) },
        ],
      });
      return this.people.read(queries, schoolId);
    });
  }

  private async plan(queries: Queries, { keptId, goneId }: MergeRequest): Promise<PlannedMerge> {
    const [kept, gone] = await this.bothOrThrow(queries, keptId, goneId, 'goneId');
    const shared = await this.merged.sharedSections(queries, keptId, goneId);
    const { dropped, obstacles } = mergeSeats(shared);
    const { [seats]: ownSeats = [], ...rows } = await this.merged.rowsOf(queries, goneId);
    const moving = ownSeats.filter((id) => !dropped.includes(id));
    const bothHaveAccounts =
      rows[account] !== undefined && (await this.merged.rowsOf(queries, keptId))[account] !== undefined;
    const { person, filled } = mergePeople(kept, gone);
    return {
      kept,
      gone,
      after: { ...kept, ...person },
      filled,
      record: {
        keptId,
        goneSourcedId: gone.sourcedId,
        moved: moving.length > 0 ? { ...rows, [seats]: moving } : rows,
      },
      dropped,
      shared: shared.map(({ section }) => section),
      obstacles: [
        ...(kept.kind === gone.kind ? [] : [{ code: 'kinds-differ' } as const]),
        ...(bothHaveAccounts ? [{ code: 'both-have-accounts' } as const] : []),
        ...obstacles,
      ],
    };
  }

  /** @throws Refusal not-found, fields-wrong where the two are one */
  private async bothOrThrow(
    queries: Queries,
    oneId: number,
    otherId: number,
    field: string,
  ): Promise<readonly [KeptPerson, KeptPerson]> {
    const found = await this.roster.byIds(queries, [oneId, otherId]);
    const [one, other] = [oneId, otherId].map((id) => found.find((person) => person.id === id));
    if (!one) throw new Refusal('not-found', { what: 'person', id: oneId });
    if (!other) throw new Refusal('not-found', { what: 'person', id: otherId });
    if (oneId === otherId) throw new Refusal('fields-wrong', {}, [{ field, detail: 'another record' }]);
    return [one, other];
  }

  private async told(queries: Queries, planned: PlannedMerge): Promise<MergePreviewReply> {
    const { kept, gone, filled, shared, obstacles } = planned;
    const records = await this.recordsOf(queries, [kept, gone]);
    const moves = (await countUses(queries, personUses, [gone.id])).get(gone.id) ?? {};
    return {
      previewId: idOf(planned),
      kept: records.get(kept.id)!,
      gone: records.get(gone.id)!,
      filled,
      moves,
      shared,
      obstacles,
    };
  }

  private async recordsOf(
    queries: Queries,
    people: readonly KeptPerson[],
  ): Promise<ReadonlyMap<number, DuplicateRecordReply>> {
    const schools = new Map((await this.periods.schools(queries)).map(({ id, shortName }) => [id, shortName]));
    const sections = await this.roster.sectionsOf(
      queries,
      people.map(({ id }) => id),
    );
    return new Map(
      people.map((person) => [
        person.id,
        {
          id: person.id,
          cells: cellsOfPerson(person),
          school: schools.get(person.schoolId ?? 0) ?? '',
          isOfRoster: !person.isMadeHere,
          sections: sections.get(person.id) ?? 0,
        },
      ]),
    );
  }
}

/** Another one where anything that would be moved or written is another. */
const idOf = ({ record, dropped, gone, after, obstacles }: PlannedMerge) =>
  revisionOf({ record, dropped, gone: valueOfPerson(gone), after: valueOfPerson(after), obstacles });
