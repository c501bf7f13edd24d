import { bodyOfItem, itemOfBody, type ItemBody } from '#contract/report-items';
import type { ReportItem } from '#core/report-items';
import { ThingOf, type Thing } from '#server/changes';
import type { PlaceOf, Queries } from '#server/platform';
import { ItemChecks } from './item-checks.service.js';
import { ReportItemsRepository } from './report-items.repository.js';

/** A report item as the log tells of it: all that it says, and where it stands among those of its school. */
export type ItemValue = ItemBody & Pick<ReportItem, 'schoolId' | 'position'>;

export function valueOfItem(item: ReportItem): ItemValue {
  return { ...bodyOfItem(item), schoolId: item.schoolId, position: item.position };
}

/** Report items, by their numbers. One that grades hang on is not removed, nor is the making of it undone. */
@ThingOf({ kind: 'report-item', called: 'the report item', change: 'change-set-up', see: 'read-set-up' })
export class ReportItemThing implements Thing<ItemValue> {
  constructor(
    private readonly items: ReportItemsRepository,
    private readonly checks: ItemChecks,
  ) {}

  within({ schoolId }: ItemValue): [PlaceOf] {
    return [{ kind: 'school', id: schoolId }];
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, ItemValue>> {
    const found = await this.items.byIds(queries, ids.map(Number));
    return new Map(found.map((item) => [String(item.id), valueOfItem(item)]));
  }

  async check(queries: Queries, values: ReadonlyMap<string, ItemValue | null>): Promise<void> {
    for (const [id, value] of values) {
      if (value) await this.checks.refuseFaulty(queries, value.schoolId, Number(id), value);
      else await this.checks.refuseUsed(queries, Number(id));
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, ItemValue | null>): Promise<void> {
    const kept: ReportItem[] = [];
    for (const [id, value] of values) {
      if (value) kept.push(itemOfBody(value, { id: Number(id), schoolId: value.schoolId, position: value.position }));
      else await this.items.remove(queries, Number(id));
    }
    await this.items.put(queries, kept);
  }
}
