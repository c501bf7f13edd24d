import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { ItemWindowsRepository, type ItemWindow } from './item-windows.repository.js';

/** The posting windows of a report item, by the item's number. */
@ThingOf({
  kind: 'item-windows',
  called: 'the posting windows of the item',
  change: 'change-set-up',
  see: 'read-set-up',
  at: (id) => ({ kind: 'report-item', id: Number(id) }),
})
export class ItemWindowsThing implements Thing<readonly ItemWindow[]> {
  constructor(private readonly windows: ItemWindowsRepository) {}

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, readonly ItemWindow[]>> {
    return this.windows.ofItems(queries, ids.map(Number));
  }

  async write(queries: Queries, values: ReadonlyMap<string, readonly ItemWindow[] | null>): Promise<void> {
    for (const [id, windows] of values) await this.windows.replace(queries, Number(id), windows ?? []);
  }

  async check(): Promise<void> {}
}
