import { bodyOfAssignment, type ItemRulesBody } from '#contract/report-items';
import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { ItemChecks } from './item-checks.service.js';
import { ReportItemsRepository } from './report-items.repository.js';

/** Rules and exceptions of a school, by the school's number: they stand or fall together, as the order of the rules counts. */
@ThingOf({
  kind: 'report-rules',
  called: 'the rules and exceptions',
  change: 'change-set-up',
  see: 'read-set-up',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class ReportRulesThing implements Thing<ItemRulesBody> {
  constructor(
    private readonly items: ReportItemsRepository,
    private readonly checks: ItemChecks,
  ) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, ItemRulesBody>> {
    const found = new Map<string, ItemRulesBody>();
    for (const id of ids) found.set(id, bodyOfAssignment(await this.items.assignmentOf(queries, Number(id))));
    return found;
  }

  async check(queries: Queries, values: ReadonlyMap<string, ItemRulesBody | null>): Promise<void> {
    for (const [id, value] of values) if (value) await this.checks.refuseUnknown(queries, Number(id), value);
  }

  async write(queries: Queries, values: ReadonlyMap<string, ItemRulesBody | null>): Promise<void> {
    for (const [id, value] of values) {
      const { rules, exceptions } = value ?? { rules: [], exceptions: [] };
      await this.items.replaceAssignment(queries, Number(id), rules, exceptions);
    }
  }
}
