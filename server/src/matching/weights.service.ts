import { Injectable } from '@nestjs/common';
import { compareWeights } from '#core/matching';
import { decimalOrThrow, formatAtLeast, type Decimal } from '#core/numbers';
import { bodyOfPolicy, type PolicyBody, type PolicyEffectReply } from '#contract/calculation';
import type {
  ClassWeightsReply,
  GroupWeightBody,
  RestoreWeightsRequest,
  TakeWeightsRequest,
  WeightsReply,
  WeightsRequest,
  WeightsTakenReply,
} from '#contract/matching';
import {
  BookSectionsRepository,
  CategoriesRepository,
  placeInWords,
  policiesFor,
  PolicyEffectService,
  SavePolicyService,
} from '#server/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { PoliciesRepository } from '#server/period-view';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { gradebook } from '#server/platforms';
import { PlatformClient } from '#server/platforms';
import { PlatformProblem } from '#server/platforms';
import { PlatformsRepository } from '#server/platforms';
import { WeightsRepository, type WeighedGroup } from './weights.repository.js';

/** A class of a platform with its groups and with the policy that holds for the section it is joined to. */
interface WeighedClass {
  readonly reply: ClassWeightsReply;
  readonly policy: PolicyBody;
  readonly groups: readonly WeighedGroup[];
}

/** How a platform and we weigh the categories of the same sections, and whose weights hold. */
@Injectable()
export class WeightsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly weights: WeightsRepository,
    private readonly platforms: PlatformsRepository,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly sectionPolicies: PoliciesRepository,
    private readonly policies: SavePolicyService,
    private readonly effects: PolicyEffectService,
    private readonly categories: CategoriesRepository,
    private readonly log: ChangeLog,
  ) {}

  async of(platformId: number, periodId: number): Promise<WeightsReply> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const categories = await this.categories.ofSchool(queries, period.schoolId);
      return {
        classes: (await this.weighed(queries, platformId, period)).map(({ reply }) => reply),
        categories: categories
          .filter(({ sectionId }) => sectionId === null)
          .map(({ id, name, tint }) => ({ id, name, tint })),
      };
    });
  }

  /** What taking their weights would do to the grades of the period. */
  async effect(platformId: number, { periodId, classIds }: WeightsRequest): Promise<PolicyEffectReply> {
    const queries = this.transactions.reading;
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const chosen = await this.chosenOrThrow(queries, platformId, period, classIds);
    const places = chosen.map((each) => ({
      department: null,
      sectionId: each.reply.sectionId,
      periodId,
      policy: withTheirWeights(each),
    }));
    return this.effects.previewMany(period.schoolId, period, places);
  }

  async take(
    actor: Actor,
    platformId: number,
    { periodId, classIds, side }: TakeWeightsRequest,
  ): Promise<WeightsTakenReply> {
    const queries = this.transactions.reading;
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const chosen = await this.chosenOrThrow(queries, platformId, period, classIds);
    if (side === 'theirs') {
      const wanted = chosen.map((each) => ({ sectionId: each.reply.sectionId, policy: withTheirWeights(each) }));
      const { name } = await this.platforms.byIdOrThrow(queries, platformId);
      await this.policies.setForSections(actor, period, `accept the weights of ${name}`, wanted);
      return { weights: await this.of(platformId, periodId), taken: chosen.length, before: [], problem: null };
    }
    const wanted = chosen.flatMap(ourWeights);
    const sent = await this.send(actor, platformId, wanted);
    return {
      weights: await this.of(platformId, periodId),
      taken: sent.problem === null ? chosen.length : 0,
      before: sent.before,
      problem: sent.problem,
    };
  }

  /** Sends the weights back that a platform had before it was sent ours. */
  async restore(actor: Actor, platformId: number, { periodId, groups }: RestoreWeightsRequest): Promise<WeightsReply> {
    const { problem } = await this.send(actor, platformId, groups);
    if (problem !== null) throw new Refusal('platform-refused', { problem });
    return this.of(platformId, periodId);
  }

  private async weighed(queries: Queries, platformId: number, period: SchoolPeriod): Promise<WeighedClass[]> {
    const classes = await this.weights.joinedClasses(queries, platformId);
    const sections = new Map((await this.sections.inPeriod(queries, period)).map((section) => [section.id, section]));
    const placed = await this.sectionPolicies.ofSchool(queries, period.schoolId);
    const running = classes.filter(({ sectionId }) => sections.has(sectionId));
    const { policies, policyOf } = policiesFor(
      placed,
      running.map(({ sectionId }) => sections.get(sectionId)!),
      period.id,
    );
    const groups = await this.weights.groups(queries, platformId);
    return running.map(({ id, title, sectionId }, at): WeighedClass => {
      const own = groups.get(id) ?? [];
      const place = policyOf[at]![1];
      const policy = policies[place]!;
      const isWeighed = policy.method === 'categoryPoints' || policy.method === 'categoryEqual';
      const compared = compareWeights(
        own.map(({ decision, categoryId, weight }) => ({
          categoryId: decision === 'joined' ? categoryId : null,
          weight: weight === null ? null : decimalOrThrow(weight),
          isIgnored: decision === 'ignored',
        })),
        isWeighed ? policy.categories : [],
      );
      const reply: ClassWeightsReply = {
        classId: id,
        title,
        sectionId,
        section: sections.get(sectionId)!.name,
        state: compared.state,
        from: placeInWords(placed[place]),
        rows: compared.rows.map(({ theirs, ours, ...row }) => ({ ...row, theirs: plain(theirs), ours: plain(ours) })),
        theirSum: formatAtLeast(compared.theirSum, 0),
      };
      return { reply, policy: bodyOfPolicy(policy), groups: own };
    });
  }

  /** @throws Refusal weights-elsewhere where a class has nothing that could be taken */
  private async chosenOrThrow(
    queries: Queries,
    platformId: number,
    period: SchoolPeriod,
    classIds: readonly number[],
  ): Promise<WeighedClass[]> {
    const wanted = new Set(classIds);
    const chosen = (await this.weighed(queries, platformId, period)).filter(({ reply }) => wanted.has(reply.classId));
    const isReady = chosen.every(({ reply: { state, theirSum } }) => state === 'differ' && theirSum === '100');
    if (chosen.length < wanted.size || !isReady) throw new Refusal('weights-elsewhere');
    return chosen;
  }

  /** One after the other; what the platform took before it failed is known, and what it had before given back. */
  private async send(
    actor: Actor,
    platformId: number,
    wanted: readonly GroupWeightBody[],
  ): Promise<{ before: GroupWeightBody[]; problem: string | null }> {
    if (wanted.length === 0) return { before: [], problem: null };
    const platform = await this.platforms.byIdOrThrow(this.transactions.reading, platformId);
    const client = new PlatformClient(platform, AbortSignal.timeout(120_000));
    const groups = new Map(
      [...(await this.weights.groups(this.transactions.reading, platformId)).values()]
        .flat()
        .map((each) => [each.id, each]),
    );
    const before: GroupWeightBody[] = [];
    let problem: string | null = null;
    for (const { id, weight } of wanted) {
      const group = groups.get(id);
      if (!group) throw new Refusal('not-found', { what: 'group of this platform', id });
      const category = { sourcedId: group.key, status: 'active', title: group.name, weight: Number(weight) };
      try {
        await client.put(`${gradebook}/categories/${encodeURIComponent(group.key)}`, { category });
      } catch (error) {
        if (!(error instanceof PlatformProblem)) throw error;
        problem = error.message;
        break;
      }
      before.push({ id, weight: group.weight ?? '0' });
      await this.keepWeight(actor, platformId, group, weight);
    }
    return { before, problem };
  }

  private async keepWeight(actor: Actor, platformId: number, { id, name, weight: had }: WeighedGroup, weight: string) {
    await this.transactions.run(async (queries) => {
      await this.weights.keep(queries, platformId, id, weight);
      const thing = `platform ${platformId}`;
      await this.log.record(queries, actor, [
        { action: 'send weight', thing, before: { group: name, weight: had }, after: { group: name, weight } },
      ]);
    });
  }
}

/** Their weights in the place of ours; what no group of theirs feeds weighs nothing. */
function withTheirWeights({ policy, reply }: WeighedClass): PolicyBody {
  const theirs = new Map(reply.rows.map((row) => [row.categoryId, row.theirs ?? '0']));
  const known = new Set(policy.categories.map(({ categoryId }) => categoryId));
  const added = reply.rows.filter(({ categoryId, theirs: weight }) => !known.has(categoryId) && weight !== null);
  return {
    ...policy,
    categories: [
      ...policy.categories.map((share) => ({ ...share, weight: theirs.get(share.categoryId) ?? '0' })),
      ...added.map(({ categoryId, theirs: weight }) => ({ categoryId, weight: weight!, dropLowest: 0, cap: null })),
    ],
  };
}

/** Our weight of each category to the one group that feeds it; of several the first bears it, the others nothing. */
function ourWeights({ reply, groups }: WeighedClass): GroupWeightBody[] {
  const ours = new Map(reply.rows.map((row) => [row.categoryId, row.ours ?? '0']));
  const first = new Set<number>();
  return groups.flatMap(({ id, categoryId, decision }) => {
    if (decision !== 'joined' || categoryId === null) return [];
    const isFirst = !first.has(categoryId);
    first.add(categoryId);
    return [{ id, weight: isFirst ? (ours.get(categoryId) ?? '0') : '0' }];
  });
}

function plain(weight: Decimal | null): string | null {
  return weight === null ? null : formatAtLeast(weight, 0);
}
