import type { AttendanceSummary } from '#core/attendance';
import { noSections, type Snapshot } from '#core/audit';
import type { Day } from '#core/calendar';
import type { CompositeSays } from '#core/posting';
import type { SchoolPeriod } from '#server/calendar';
import type { PeriodView, ReportedItem, ScaleVersion } from '#server/period-view';
import { byId } from './by-id.js';

/** What the grades of some sections are judged by, as plain data: it can be handed to a thread. */
export interface Ground {
  readonly period: SchoolPeriod;
  readonly today: Day;
  /** ISO instant. */
  readonly now: string;
  readonly codes: Snapshot['codes'];
  /** What these sections report; an item that none of them reports is not there, nor is any other section. */
  readonly reported: readonly ReportedItem[];
  /** Versions of scales that something may be posted under. */
  readonly versions: ReadonlyMap<number, ScaleVersion>;
  /** By enrollment; empty where no attendance is taken. */
  readonly attendance: ReadonlyMap<number, AttendanceSummary>;
  /** By item and enrollment; an item that is no composite is not there. */
  readonly composites: ReadonlyMap<number, ReadonlyMap<number, CompositeSays>>;
}

/** A period without any grade or section. */
export function emptySnapshot({
  period,
  today,
  now,
  codes,
}: Pick<Ground, 'period' | 'today' | 'now' | 'codes'>): Snapshot {
  const { startsOn: periodStartsOn, endsOn: periodEndsOn } = period;
  return { ...noSections, periodStartsOn, periodEndsOn, today, now, codes, grades: [] };
}

/** What some sections report in a period. */
export function reportedIn({ reported }: PeriodView, sectionIds: readonly number[]): ReportedItem[] {
  return reported.flatMap((reporting) => {
    const running = byId(reporting.sections);
    const sections = sectionIds.flatMap((id) => running.get(id) ?? []);
    if (sections.length === 0) return [];
    const scales = new Map(
      sections.flatMap(({ id }) => {
        const inUse = reporting.scales.get(id);
        return inUse ? [[id, inUse] as const] : [];
      }),
    );
    return [{ ...reporting, sections, scales }];
  });
}
