import { Injectable } from '@nestjs/common';
import type { GpaPolicyBody, GpaPolicyReply, SaveGpaPolicyRequest } from '#contract/transcripts';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { GpaPolicyRepository, PeriodViews } from '#server/period-view';
import { Transactions, type Actor, type Queries } from '#server/platform';

/** How grade point averages are made in the district, and who counts in them. */
@Injectable()
export class GpaPolicyService {
  constructor(
    private readonly transactions: Transactions,
    private readonly policies: GpaPolicyRepository,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly changes: Changes,
  ) {}

  read(): Promise<GpaPolicyReply> {
    return this.transactions.snapshot((queries) => this.readWithin(queries));
  }

  async save(actor: Actor, { revision, ...policy }: SaveGpaPolicyRequest): Promise<GpaPolicyReply> {
    return this.transactions.run(async (queries) => {
      const edit = { kind: 'gpa-settings', id: 'district', expected: revision, after: bodyOf(policy) };
      await this.changes.make(queries, actor, { action: 'save the GPA settings', edits: [edit] });
      return this.readWithin(queries);
    });
  }

  private async readWithin(queries: Queries): Promise<GpaPolicyReply> {
    const policy = await this.policies.read(queries);
    const items: { school: string; name: string }[] = [];
    const codes = new Set<string>();
    let [coursesCounted, coursesNotCounted] = [0, 0];
    for (const { id, shortName } of await this.periods.schools(queries)) {
      const facts = await this.views.factsOf(queries, id);
      for (const { onTranscript, countsInGpa } of facts.courses)
        if (onTranscript && countsInGpa) coursesCounted++;
        else coursesNotCounted++;
      for (const { name, onTranscript, countsInGpa } of facts.items)
        if (onTranscript && countsInGpa) items.push({ school: shortName, name });
      for (const { code, countsInGpa, isFailing } of facts.codes.values())
        if (countsInGpa && isFailing) codes.add(code);
    }
    return { policy, revision: revisionOf(policy), coursesCounted, coursesNotCounted, items, codes: [...codes] };
  }
}

/** The fields of a policy and nothing else. */
function bodyOf({
  additions: { regular, honours, college },
  leastAddedPoints,
  mostAddedCredits,
  repeats,
  digits,
  rounding,
}: GpaPolicyBody): GpaPolicyBody {
  return { additions: { regular, honours, college }, leastAddedPoints, mostAddedCredits, repeats, digits, rounding };
}
