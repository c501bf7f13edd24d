import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { windowState } from '#core/calendar';
import { PeriodsRepository } from '#server/calendar';
import { ItemWindowsRepository, ReportItemsRepository } from '#server/report-items';
import { Clock, intArray, Refusal, type Actor, type Queries } from '#server/platform';
import { byItem, type GradePlace } from './grade-place.js';
import { canOpenSheet, canPost } from './posting-policy.js';

/** Who may change single grades, and what must hold still meanwhile. */
@Injectable()
export class PostingAccess {
  constructor(
    private readonly periods: PeriodsRepository,
    private readonly items: ReportItemsRepository,
    private readonly windows: ItemWindowsRepository,
    private readonly clock: Clock,
  ) {}

  async canOpen(queries: Queries, places: readonly GradePlace[], actor: Actor): Promise<boolean> {
    const sections = await this.sectionsOf(queries, places);
    const known = new Set(sections.flatMap(({ enrollments }) => enrollments));
    return (
      places.every(({ enrollmentId }) => known.has(enrollmentId)) &&
      sections.every((section) => canOpenSheet(actor, section))
    );
  }

  /** Keeps the periods unsealed and the sheets for ourselves until the transaction ends. @throws Refusal period-sealed */
  async hold(queries: Queries, places: readonly GradePlace[]): Promise<void> {
    for (const id of [...new Set(places.map(({ periodId }) => periodId))].toSorted((a, b) => a - b))
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
    const sections = (await this.sectionsOf(queries, places)).map(({ id }) => id);
    await queries.execute(sql`SELECT id FROM sections WHERE id = ANY(${intArray(sections)}) ORDER BY id FOR UPDATE`);
  }

  /** @throws Refusal window-closed where an item of a period takes nothing from somebody any more, or not yet */
  async refuseClosed(queries: Queries, places: readonly GradePlace[], actor: Actor): Promise<void> {
    for (const { itemId, periodId } of byItem(places)) {
      const windows = (await this.windows.ofItems(queries, [itemId])).get(String(itemId)) ?? [];
      const times = windows.find((each) => each.periodId === periodId);
      const window = times ? { ...times, state: windowState(times, this.clock.now().toISOString()) } : null;
      if (canPost(actor, window, true)) continue;
      const [item, period] = [
        await this.items.byIdOrThrow(queries, itemId),
        await this.periods.byIdOrThrow(queries, periodId),
      ];
      throw new Refusal('window-closed', { item: item.name, period: period.name, state: window?.state ?? 'closed' });
    }
  }

  private async sectionsOf(queries: Queries, places: readonly GradePlace[]) {
    const ids = [...new Set(places.map(({ enrollmentId }) => enrollmentId))];
    const { rows } = await queries.execute<{ id: number; teacherId: number; enrollments: number[] }>(sql`
      SELECT s.id, s.teacher_id AS "teacherId", array_agg(e.id) AS enrollments
      FROM enrollments e JOIN sections s ON s.id = e.section_id WHERE e.id = ANY(${intArray(ids)}) GROUP BY s.id`);
    return rows;
  }
}
