import { foldName } from './name-forms.js';
import { compareNames } from './compare-names.js';

/** A class on a learning platform. */
export interface TheirClass {
  readonly title: string;
  /** The platform's code for it, where it has one. */
  readonly code: string | null;
  /** Our numbers of those of its students who are known. */
  readonly students: ReadonlySet<number>;
}

export interface OurSection {
  readonly sectionId: number;
  readonly name: string;
  /** Course code and number of the section, such as "PEU-104-2". */
  readonly code: string;
  readonly students: ReadonlySet<number>;
}

export type SectionReason =
  | { readonly kind: 'code' }
  | { readonly kind: 'students'; readonly common: number; readonly of: number }
  | { readonly kind: 'title' }
  | { readonly kind: 'titleLike' }
  | { readonly kind: 'titleOther' };

export interface SectionProposal {
  readonly sectionId: number;
  /** 0 to 100. */
  readonly confidence: number;
  readonly reasons: readonly SectionReason[];
}

export type ProposedSection =
  | { readonly state: 'proposed'; readonly best: SectionProposal }
  | { readonly state: 'conflicting'; readonly between: readonly SectionProposal[] }
  | { readonly state: 'unmatched' };

const clearLead = 10;
const leastConfidence = 35;
const byCode = 96;
const byTitle = 25;
const byLikeTitle = 15;
/** Who sits in the class says most: the share of all students of both that are in both. */
const byAllStudents = 74;

/**
 * Which section a class most likely is: by its code, by who is in both, by its title. A code that fits while almost
 * nobody is in both is not believed.
 */
export function proposeSection(theirs: TheirClass, sections: readonly OurSection[]): ProposedSection {
  const proposals = sections
    .map((section) => proposalFor(theirs, section))
    .filter(({ confidence }) => confidence >= leastConfidence)
    .toSorted((a, b) => b.confidence - a.confidence);
  const [best] = proposals;
  if (!best) return { state: 'unmatched' };
  const between = proposals.filter(({ confidence }) => best.confidence - confidence < clearLead);
  return between.length > 1 ? { state: 'conflicting', between } : { state: 'proposed', best };
}

function proposalFor(theirs: TheirClass, section: OurSection): SectionProposal {
  const reasons: SectionReason[] = [];
  const common = [...theirs.students].filter((student) => section.students.has(student)).length;
  const of = theirs.students.size + section.students.size - common;
  const isCode = theirs.code !== null && foldName(theirs.code) === foldName(section.code);
  const title = compareNames(theirs.title, section.name);
  if (isCode) reasons.push({ kind: 'code' });
  if (common > 0) reasons.push({ kind: 'students', common, of });
  const isTitle = title !== undefined && title.confidence > 95;
  reasons.push({ kind: isTitle ? 'title' : title ? 'titleLike' : 'titleOther' });
  const byStudents = of === 0 ? 0 : Math.round((byAllStudents * common) / of);
  const byName = isTitle ? byTitle : title ? byLikeTitle : 0;
  const isBelieved = isCode && (of === 0 || common > 0);
  return {
    sectionId: section.sectionId,
    confidence: isBelieved ? Math.max(byCode, byStudents + byName) : byStudents + byName,
    reasons,
  };
}
