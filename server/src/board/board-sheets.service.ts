import { Injectable } from '@nestjs/common';
import type { BoardSheetReply } from '#contract/board';
import type { SchoolPeriod } from '#server/calendar';
import { PostingRequestsRepository, sheetId, SignOffsRepository } from '#server/posting';
import type { PeriodView } from '#server/period-view';
import type { Queries } from '#server/platform';
import { RemindersRepository } from './reminders.repository.js';
import { SheetChangesRepository } from './sheet-changes.repository.js';
import { SheetCountsRepository } from './sheet-counts.repository.js';

interface KeptSection {
  /** Of what its sheets rested on when they were counted. */
  readonly mark: string;
  readonly sheets: readonly BoardSheetReply[];
}

/**
 * The sheets of a period. They are kept as they were counted last, and only sections of which something was written since are
 * counted anew, so that hundreds may look while hundreds post.
 */
@Injectable()
export class BoardSheets {
  /** By the view that they were counted under: another set-up is another view. */
  private readonly kept = new WeakMap<PeriodView, Map<number, KeptSection>>();

  constructor(
    private readonly changes: SheetChangesRepository,
    private readonly counts: SheetCountsRepository,
    private readonly signOffs: SignOffsRepository,
    private readonly reminders: RemindersRepository,
    private readonly requests: PostingRequestsRepository,
  ) {}

  /** By section; of those that report something in the period. To be asked within a snapshot. */
  async of(
    queries: Queries,
    view: PeriodView,
    period: SchoolPeriod,
  ): Promise<ReadonlyMap<number, readonly BoardSheetReply[]>> {
    const marks = await this.changes.of(queries, period.id);
    const kept = this.kept.get(view) ?? new Map<number, KeptSection>();
    const sections = new Set(view.reported.flatMap((reported) => reported.sections.map(({ id }) => id)));
    const stale = new Set([...sections].filter((id) => kept.get(id)?.mark !== (marks.get(id) ?? '0')));
    const counted =
      stale.size > 0 ? await this.count(queries, view, period, stale) : new Map<number, BoardSheetReply[]>();
    const now = new Map<number, KeptSection>();
    for (const id of sections)
      now.set(id, stale.has(id) ? { mark: marks.get(id) ?? '0', sheets: counted.get(id) ?? [] } : kept.get(id)!);
    this.kept.set(view, now);
    return new Map([...now].map(([id, { sheets }]) => [id, sheets]));
  }

  private async count(
    queries: Queries,
    view: PeriodView,
    period: SchoolPeriod,
    sections: ReadonlySet<number>,
  ): Promise<Map<number, BoardSheetReply[]>> {
    const ids = [...sections];
    const counts = await this.counts.of(queries, view, period, sections);
    const signedOff = await this.signOffs.ofSections(queries, period.id, ids);
    const reminded = await this.reminders.ofSections(queries, period.id, ids);
    const requests = await this.requests.openOf(queries, period.id, ids);
    const found = new Map<number, BoardSheetReply[]>();
    for (const { item, sections: reporting } of view.reported)
      for (const { id: sectionId } of reporting.filter(({ id }) => sections.has(id))) {
        const key = sheetId({ sectionId, itemId: item.id, periodId: period.id });
        const sheet: BoardSheetReply = {
          itemId: item.id,
          ...counts.get(key)!,
          signedOff: signedOff.get(key) ?? null,
          reminded: reminded.get(key) ?? null,
          requests: requests.get(key) ?? 0,
        };
        found.set(sectionId, [...(found.get(sectionId) ?? []), sheet]);
      }
    return found;
  }
}
