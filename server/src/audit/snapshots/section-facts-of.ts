import { itemFactOf, type SectionFact, type SheetFact, type Snapshot } from '#core/audit';
import { decimalOrThrow } from '#core/numbers';
import type { ReportedItem, ScaleVersion } from '#server/period-view';
import { byId } from './by-id.js';
import type { SectionFactsRepository, Standing } from './section-facts.repository.js';

type Read<Question extends keyof SectionFactsRepository> = Awaited<ReturnType<SectionFactsRepository[Question]>>;

/** What the set-up says of a section. */
export type SectionBase = Pick<SectionFact, 'id' | 'name' | 'course' | 'credits' | 'policy'>;

/** What was read of some sections beside their grades, as plain data: it can be handed to a thread. */
export interface SectionsRead extends Pick<Snapshot, 'strays' | 'sealed'> {
  readonly running: readonly SectionBase[];
  readonly standings: ReadonlyMap<number, Standing>;
  readonly assignments: Read<'assignments'>;
  readonly seats: Read<'seats'>;
  readonly unmatched: Read<'unmatchedGroups'>;
  readonly earned: Read<'earnedBefore'>;
}

/** The sections as rules see them. */
export function sectionFactsOf(read: SectionsRead, reported: readonly ReportedItem[]): SectionFact[] {
  const sheets = sheetsBySection(reported, read.standings);
  return read.running.map((section) => ({
    ...section,
    students: (read.seats.get(section.id) ?? []).map((seat) => ({
      ...seat,
      creditsBefore: read.earned.get(seat.enrollmentId) ?? noCredits,
    })),
    sheets: sheets.get(section.id) ?? [],
    bookProblem: read.standings.get(section.id)!.problem,
    assignments: read.assignments.get(section.id) ?? [],
    unmatched: read.unmatched.get(section.id) ?? [],
  }));
}

const noCredits = decimalOrThrow('0');

function sheetsBySection(
  reported: readonly ReportedItem[],
  standings: ReadonlyMap<number, Standing>,
): ReadonlyMap<number, SheetFact[]> {
  const found = new Map<number, SheetFact[]>();
  for (const { item, sections, window, scales } of reported) {
    const fact = itemFactOf(item, window);
    const running = byId(sections);
    for (const [id, { signedOff }] of standings) {
      if (!running.has(id)) continue;
      const own = found.get(id) ?? [];
      own.push({ item: fact, scale: scaleFactOf(scales.get(id)?.version), isSignedOff: signedOff.includes(item.id) });
      found.set(id, own);
    }
  }
  return found;
}

function scaleFactOf(version: ScaleVersion | undefined): SheetFact['scale'] {
  if (!version) return null;
  const { scaleName: name, kind, bands, highestLevel } = version;
  return { name, kind, bands: bands.filter(({ isOff }) => !isOff), highestLevel };
}
