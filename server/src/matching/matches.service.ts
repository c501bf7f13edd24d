import { Injectable } from '@nestjs/common';
import { indexPeople, matchPeople, proposeSections } from '#core/matching';
import type {
  CandidateReply,
  ClassMatchReply,
  DecidedReply,
  MatchDecisionBody,
  MatchKind,
  MatchesReply,
  NameKind,
  PersonMatchReply,
  TargetReply,
} from '#contract/matching';
import { CategoriesRepository } from '#server/calculation';
import { PoliciesRepository } from '#server/period-view';
import { Changes, type Edit } from '#server/changes';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { ReportItemsRepository } from '#server/report-items';
import { composeNames } from './compose-names.js';
import { matchId } from './match.thing.js';
import { MatchesRepository, type Decided, type ListedStudent, theirPerson } from './matches.repository.js';
import { PlatformsRepository, type KeptPlatform } from '#server/platforms';
import { PlatformsService } from '#server/platforms';

/** What of a learning platform is joined to what of ours, what is proposed, and what somebody decides. */
@Injectable()
export class MatchesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly platforms: PlatformsRepository,
    private readonly platformList: PlatformsService,
    private readonly matches: MatchesRepository,
    private readonly policies: PoliciesRepository,
    private readonly categories: CategoriesRepository,
    private readonly items: ReportItemsRepository,
    private readonly changes: Changes,
  ) {}

  async of(platformId: number): Promise<MatchesReply> {
    return this.transactions.snapshot(async (queries) => {
      const kept = await this.platforms.byIdOrThrow(queries, platformId);
      const sections = await this.matches.sections(queries, kept.schoolId);
      const targets = await this.targets(queries, kept.schoolId);
      const names = await this.matches.names(queries, platformId);
      return {
        platform: await this.platformList.oneOrThrow(queries, platformId),
        sections: sections.map(({ id, name, students }) => ({ id, name, students: students.length })),
        targets,
        classes: await this.classes(queries, kept, sections),
        names: composeNames(
          names.map(({ id, classId, kind, name, weight, decision, categoryId, itemId, label }) => {
            const target = categoryId ?? itemId ?? label;
            return {
              id,
              classId,
              kind,
              name,
              decision,
              weight: weight === null ? null : Number(weight),
              target: target === null ? null : String(target),
            };
          }),
          targets,
          await this.matches.earlierChoices(queries, kept.schoolId),
        ),
        ...(await this.people(queries, platformId)),
      };
    });
  }

  /** All of the decisions hold, or none. */
  async decide(actor: Actor, platformId: number, decisions: readonly MatchDecisionBody[]): Promise<DecidedReply> {
    return this.transactions.run(async (queries) => {
      const { schoolId, name } = await this.platforms.byIdOrThrow(queries, platformId);
      const known = await this.knownTargets(queries, schoolId);
      const edits: Edit[] = [];
      const faults: FieldFault[] = [];
      const decided = await this.decidedNow(queries, platformId, decisions);
      for (const [at, { kind, ids, decision, target }] of decisions.entries()) {
        const before = decided.get(kind)!;
        const after = { decision, target: decision === 'joined' ? target : null };
        if (ids.some((id) => !before.has(id)))
          faults.push({ field: `decisions.${at}.ids`, detail: `numbers of this platform, each a ${kind}` });
        else if (decision === 'joined' && !known[kind].has(target!))
          faults.push({ field: `decisions.${at}.target`, detail: 'something of this school that it can be joined to' });
        else edits.push(...ids.map((id) => ({ kind: 'match', id: matchId(platformId, kind, id), after })));
      }
      if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
      await this.changes.make(queries, actor, { action: `decide matches of ${name}`, edits });
      return { changed: edits.length };
    });
  }

  /** What is decided about all of these now, read once for each kind. */
  private async decidedNow(
    queries: Queries,
    platformId: number,
    things: readonly { readonly kind: MatchKind; readonly ids: readonly number[] }[],
  ): Promise<ReadonlyMap<MatchKind, ReadonlyMap<number, Decided>>> {
    const decided = new Map<MatchKind, ReadonlyMap<number, Decided>>();
    for (const kind of new Set(things.map((thing) => thing.kind))) {
      const ids = things.flatMap((thing) => (thing.kind === kind ? thing.ids : []));
      decided.set(kind, await this.matches.decidedAbout(queries, platformId, kind, ids));
    }
    return decided;
  }

  private async classes(
    queries: Queries,
    { id: platformId }: KeptPlatform,
    ours: Awaited<ReturnType<MatchesRepository['sections']>>,
  ): Promise<ClassMatchReply[]> {
    const rows = await this.matches.classes(queries, platformId);
    const students = new Map(rows.map(({ id }) => [id, new Set<number>()]));
    const sizes = new Map<number, number>();
    for (const { classId, studentId, personId } of await this.matches.members(queries, platformId)) {
      // Somebody who is not joined yet counts as a student of the class, only as nobody of ours.
      students.get(classId)?.add(studentId ?? -personId);
      sizes.set(classId, (sizes.get(classId) ?? 0) + 1);
    }
    const taken = new Map(
      rows.flatMap(({ decision, sectionId, title }) => (decision === 'joined' ? [[sectionId!, title]] : [])),
    );
    const open = rows.filter(({ decision }) => decision === 'open');
    const proposals = proposeSections(
      open.map(({ id, title, code }) => ({ key: id, title, code, students: students.get(id)! })),
      ours.map((section) => ({ ...section, sectionId: section.id, students: new Set(section.students) })),
      taken,
    );
    return rows.map(({ id, title, code, term, decision, sectionId }) => {
      const proposed = proposals.get(id);
      const best = proposed?.state === 'proposed' ? proposed.best : null;
      return {
        id,
        title,
        code,
        term,
        students: sizes.get(id) ?? 0,
        state: decision !== 'open' ? decision : proposed!.state === 'claimed' ? 'conflicting' : proposed!.state,
        sectionId: decision === 'joined' ? sectionId : proposed?.state === 'claimed' ? proposed.sectionId : null,
        best,
        between: proposed?.state === 'conflicting' ? proposed.between : [],
        claimedBy: proposed?.state === 'claimed' ? proposed.by : [],
      };
    });
  }

  private async people(queries: Queries, platformId: number): Promise<Pick<MatchesReply, 'people' | 'peopleFound'>> {
    const ours = await this.matches.students(queries);
    const index = indexPeople(ours);
    const byId = new Map(ours.map((person) => [person.id, person]));
    const candidate = (id: number) => candidateOf(byId.get(id)!);
    const people: PersonMatchReply[] = [];
    let peopleFound = 0;
    const all = await this.matches.people(queries, platformId);
    const matches = matchPeople(all.map(theirPerson), index);
    for (const [at, { id, decision, studentId, ...theirs }] of all.entries()) {
      const match = matches[at]!;
      if (match.state === 'joined' && decision === 'joined' && match.personId === studentId) {
        peopleFound++;
        continue;
      }
      const ids = match.state === 'conflicting' ? match.personIds : match.state === 'unmatched' ? [] : [match.personId];
      people.push({
        id,
        name: `${theirs.familyName}, ${theirs.givenName}`,
        identifier: theirs.identifier,
        email: theirs.email,
        birthDate: theirs.birthDate,
        state: decision !== 'open' ? decision : match.state === 'joined' ? 'proposed' : match.state,
        match,
        target: studentId === null ? null : candidate(studentId),
        candidates: ids.map(candidate),
      });
    }
    return { people, peopleFound };
  }

  private async targets(queries: Queries, schoolId: number): Promise<Record<NameKind, TargetReply[]>> {
    const kept = await this.policies.ofSchool(queries, schoolId);
    const shares =
      kept.find(({ department, sectionId, periodId }) => !department && !sectionId && !periodId)?.policy.categories ??
      [];
    const weights = new Map(shares.map(({ categoryId, weight }) => [categoryId, Number(weight)]));
    const plain = (key: string, name: string) => ({ key, name, weight: null });
    return {
      group: (await this.categories.ofSchool(queries, schoolId))
        .filter(({ sectionId, isActive }) => sectionId === null && isActive)
        .map(({ id, name }) => ({ key: String(id), name, weight: weights.get(id) ?? null })),
      total: (await this.items.ofSchool(queries, schoolId)).map(({ id, name }) => plain(String(id), name)),
      letter: (await this.matches.labels(queries, schoolId)).map((label) => plain(label, label)),
    };
  }

  private async knownTargets(queries: Queries, schoolId: number) {
    const targets = await this.targets(queries, schoolId);
    const keys = (kind: NameKind) => new Set(targets[kind].map(({ key }) => key));
    return {
      class: new Set((await this.matches.sections(queries, schoolId)).map(({ id }) => String(id))),
      person: new Set((await this.matches.students(queries)).map(({ id }) => String(id))),
      group: keys('group'),
      total: keys('total'),
      letter: keys('letter'),
    };
  }
}

function candidateOf({ id, familyName, givenName, shownNumber, email, birthDate }: ListedStudent): CandidateReply {
  return { id, name: `${familyName}, ${givenName}`, number: shownNumber, email, birthDate };
}
