import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { windowState } from '#core/calendar';
import { canPost } from '#core/posting';
import { PeriodsRepository } from '#server/calendar';
import { ItemWindowsRepository, ReportItemsRepository } from '#server/report-items';
import { Clock, intArray, Refusal, Whereabouts, type Actor, type Queries } from '#server/platform';
import type { GradePlace } from './grade-place.js';
import { sheetId, type SheetPlace } from './sheet-place.js';
import { SignOffsRepository } from './sign-offs.repository.js';

/** When single grades may be changed, and what must hold still meanwhile. */
@Injectable()
export class PostingAccess {
  constructor(
    private readonly periods: PeriodsRepository,
    private readonly items: ReportItemsRepository,
    private readonly windows: ItemWindowsRepository,
    private readonly whereabouts: Whereabouts,
    private readonly signOffs: SignOffsRepository,
    private readonly clock: Clock,
  ) {}

  /** Keeps the periods unsealed and the sheets for ourselves until the transaction ends. @throws Refusal period-sealed */
  async hold(queries: Queries, places: readonly GradePlace[]): Promise<void> {
    await this.holdSheets(queries, await this.sheetsOf(queries, places));
  }

  /** The same for whole sheets. @throws Refusal period-sealed */
  async holdSheets(queries: Queries, sheets: readonly SheetPlace[]): Promise<void> {
    for (const id of [...new Set(sheets.map(({ periodId }) => periodId))].toSorted((a, b) => a - b))
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
    const sections = [...new Set(sheets.map(({ sectionId }) => sectionId))];
    await queries.execute(sql`SELECT id FROM sections WHERE id = ANY(${intArray(sections)}) ORDER BY id FOR UPDATE`);
  }

  /**
   * Refuses to change grades where posting is over.
   * @throws Refusal window-closed where a sheet takes nothing from somebody any more, or not yet; sheet-signed-off
   */
  async refuseGrades(queries: Queries, places: readonly GradePlace[], actor: Actor): Promise<void> {
    const sheets = await this.sheetsOf(queries, places);
    await this.refuseClosed(queries, sheets, actor);
    await this.refuseSignedOff(queries, sheets);
  }

  /** @throws Refusal window-closed where an item of a period takes nothing from somebody any more, or not yet */
  async refuseClosed(queries: Queries, sheets: readonly SheetPlace[], actor: Actor): Promise<void> {
    for (const [itemId, periodId, sectionIds] of byItem(sheets)) {
      const windows = (await this.windows.ofItems(queries, [itemId])).get(String(itemId)) ?? [];
      const times = windows.find((each) => each.periodId === periodId);
      const window = times ? { ...times, state: windowState(times, this.clock.now().toISOString()) } : null;
      const sections = sectionIds.map((id) => ({ kind: 'section' as const, id }));
      const mayOutside = await this.whereabouts.may(actor, 'post-outside-window', sections, queries);
      if (canPost(window, mayOutside, true)) continue;
      const [item, period] = [
        await this.items.byIdOrThrow(queries, itemId),
        await this.periods.byIdOrThrow(queries, periodId),
      ];
      throw new Refusal('window-closed', { item: item.name, period: period.name, state: window?.state ?? 'closed' });
    }
  }

  /** @throws Refusal sheet-signed-off */
  async refuseSignedOff(queries: Queries, sheets: readonly SheetPlace[]): Promise<void> {
    const [signedOff] = (await this.signOffs.ofSheets(queries, sheets.map(sheetId))).values();
    if (signedOff) throw new Refusal('sheet-signed-off', { by: signedOff.by });
  }

  /** The sheets that grades stand on, each once. */
  private async sheetsOf(queries: Queries, places: readonly GradePlace[]): Promise<SheetPlace[]> {
    const ids = [...new Set(places.map(({ enrollmentId }) => enrollmentId))];
    const { rows } = await queries.execute<{ id: number; section: number }>(sql`
      SELECT id, section_id AS section FROM enrollments WHERE id = ANY(${intArray(ids)})`);
    const sectionOf = new Map(rows.map(({ id, section }) => [id, section]));
    const sheets = new Map<string, SheetPlace>();
    for (const { enrollmentId, itemId, periodId } of places) {
      const sectionId = sectionOf.get(enrollmentId);
      if (sectionId !== undefined)
        sheets.set(sheetId({ sectionId, itemId, periodId }), { sectionId, itemId, periodId });
    }
    return [...sheets.values()];
  }
}

/** The sections of each item in each period. */
function byItem(sheets: readonly SheetPlace[]): [itemId: number, periodId: number, sectionIds: number[]][] {
  const found = new Map<string, [number, number, number[]]>();
  for (const { sectionId, itemId, periodId } of sheets) {
    const key = `${itemId}/${periodId}`;
    const own = found.get(key) ?? [itemId, periodId, []];
    own[2].push(sectionId);
    found.set(key, own);
  }
  return [...found.values()];
}
