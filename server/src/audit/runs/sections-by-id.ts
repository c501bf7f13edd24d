import type { RunningSection } from '#server/period-view';

const known = new WeakMap<readonly RunningSection[], ReadonlyMap<number, RunningSection>>();

/** Sections of a view by their ids: gathered once, however many parts of a period are read. */
export function sectionsById(sections: readonly RunningSection[]): ReadonlyMap<number, RunningSection> {
  const kept = known.get(sections) ?? new Map(sections.map((section) => [section.id, section]));
  known.set(sections, kept);
  return kept;
}
