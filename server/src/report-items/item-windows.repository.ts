import { Injectable } from '@nestjs/common';
import { asc, eq, sql } from 'drizzle-orm';
import type { LatePosters } from '#core/calendar';
import { intArray, tables, type Queries } from '#server/platform';

/** When an item may be posted for one period; instants in UTC, as ISO texts. */
export interface ItemWindow {
  readonly periodId: number;
  readonly opensAt: string;
  readonly closesAt: string;
  readonly graceUntil: string | null;
  readonly latePosters: LatePosters;
  readonly earlyReason: string;
}

const { postingWindows } = tables;

/** The posting windows of single items; those of a whole calendar are the calendar's. */
@Injectable()
export class ItemWindowsRepository {
  /** By item, each in the order of its periods; an item without windows is not there. */
  async ofItems(queries: Queries, itemIds: readonly number[]): Promise<ReadonlyMap<string, readonly ItemWindow[]>> {
    const found = new Map<string, ItemWindow[]>();
    const rows = await queries
      .select()
      .from(postingWindows)
      .where(sql`${postingWindows.itemId} = ANY(${intArray(itemIds)})`)
      .orderBy(asc(postingWindows.itemId), asc(postingWindows.periodId));
    for (const { itemId, periodId, opensAt, closesAt, graceUntil, latePosters, earlyReason } of rows) {
      const window = {
        periodId,
        opensAt: opensAt.toISOString(),
        closesAt: closesAt.toISOString(),
        graceUntil: graceUntil?.toISOString() ?? null,
        latePosters,
        earlyReason,
      };
      found.set(String(itemId), [...(found.get(String(itemId)) ?? []), window]);
    }
    return found;
  }

  async replace(queries: Queries, itemId: number, windows: readonly ItemWindow[]): Promise<void> {
    await queries.delete(postingWindows).where(eq(postingWindows.itemId, itemId));
    if (windows.length === 0) return;
    await queries.insert(postingWindows).values(
      windows.map(({ opensAt, closesAt, graceUntil, ...window }) => ({
        ...window,
        itemId,
        opensAt: new Date(opensAt),
        closesAt: new Date(closesAt),
        graceUntil: graceUntil === null ? null : new Date(graceUntil),
      })),
    );
  }
}
