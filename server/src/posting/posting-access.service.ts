import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { windowState } from '#core/calendar';
import { PeriodsRepository } from '#server/calendar';
import { ItemWindowsRepository, ReportItemsRepository } from '#server/report-items';
import { Clock, intArray, Refusal, Whereabouts, type Actor, type Queries } from '#server/platform';
import { byItem, type GradePlace } from './grade-place.js';
import { canPost } from './posting-policy.js';

/** When single grades may be changed, and what must hold still meanwhile. */
@Injectable()
export class PostingAccess {
  constructor(
    private readonly periods: PeriodsRepository,
    private readonly items: ReportItemsRepository,
    private readonly windows: ItemWindowsRepository,
    private readonly whereabouts: Whereabouts,
    private readonly clock: Clock,
  ) {}

  /** Keeps the periods unsealed and the sheets for ourselves until the transaction ends. @throws Refusal period-sealed */
  async hold(queries: Queries, places: readonly GradePlace[]): Promise<void> {
    for (const id of [...new Set(places.map(({ periodId }) => periodId))].toSorted((a, b) => a - b))
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
    const sections = await this.sectionsOf(queries, places);
    await queries.execute(sql`SELECT id FROM sections WHERE id = ANY(${intArray(sections)}) ORDER BY id FOR UPDATE`);
  }

  /** @throws Refusal window-closed where an item of a period takes nothing from somebody any more, or not yet */
  async refuseClosed(queries: Queries, places: readonly GradePlace[], actor: Actor): Promise<void> {
    for (const { itemId, periodId, enrollmentIds } of byItem(places)) {
      const windows = (await this.windows.ofItems(queries, [itemId])).get(String(itemId)) ?? [];
      const times = windows.find((each) => each.periodId === periodId);
      const window = times ? { ...times, state: windowState(times, this.clock.now().toISOString()) } : null;
      const enrollments = enrollmentIds.map((id) => ({ kind: 'enrollment' as const, id }));
      const mayOutside = await this.whereabouts.may(actor, 'post-outside-window', enrollments, queries);
      if (canPost(window, mayOutside, true)) continue;
      const [item, period] = [
        await this.items.byIdOrThrow(queries, itemId),
        await this.periods.byIdOrThrow(queries, periodId),
      ];
      throw new Refusal('window-closed', { item: item.name, period: period.name, state: window?.state ?? 'closed' });
    }
  }

  private async sectionsOf(queries: Queries, places: readonly GradePlace[]) {
    const ids = [...new Set(places.map(({ enrollmentId }) => enrollmentId))];
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT DISTINCT section_id AS id FROM enrollments WHERE id = ANY(${intArray(ids)})`);
    return rows.map(({ id }) => id);
  }
}
