import { proposeSection, type OurSection, type ProposedSection, type TheirClass } from './propose-section.js';

/** A proposal for one of several classes, or a section that several of them claim. */
export type ProposedAmongClasses =
  | ProposedSection
  | { readonly state: 'claimed'; readonly sectionId: number; readonly by: readonly string[] };

/**
 * Proposals for all classes of a platform together: a section that two classes would be joined to is proposed to
 * neither, and one that is joined already is proposed to nobody else.
 */
export function proposeSections<Key>(
  classes: readonly (TheirClass & { readonly key: Key })[],
  sections: readonly OurSection[],
  taken: ReadonlyMap<number, string>,
): ReadonlyMap<Key, ProposedAmongClasses> {
  const proposals = new Map<Key, ProposedSection>(classes.map((each) => [each.key, proposeSection(each, sections)]));
  const claims = new Map<number, string[]>([...taken].map(([sectionId, title]) => [sectionId, [title]]));
  for (const { key, title } of classes) {
    const proposed = proposals.get(key)!;
    if (proposed.state !== 'proposed') continue;
    const { sectionId } = proposed.best;
    claims.set(sectionId, [...(claims.get(sectionId) ?? []), title]);
  }
  return new Map(
    [...proposals].map(([key, proposed]): [Key, ProposedAmongClasses] => {
      const sectionId = proposed.state === 'proposed' ? proposed.best.sectionId : undefined;
      const by = sectionId === undefined ? [] : claims.get(sectionId)!;
      return by.length > 1 ? [key, { state: 'claimed', sectionId: sectionId!, by }] : [key, proposed];
    }),
  );
}
