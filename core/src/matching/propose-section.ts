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
  /** The class has no students yet, so that only its title speaks. */
  | { readonly kind: 'nobody' }
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
const [byTitleAlone, byLikeTitleAlone] = [60, 40];
const byTitle = 25;
const byLikeTitle = 15;
/** Who sits in the class says most: the share of all students of both that are in both. */
const byAllStudents = 74;

/**
 * Which section a class most likely is: by its code, by who is in both, by its title. A code that fits while
 * nobody is in both is not believed, unless nobody is in the class at all.
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
  const common = [...theirs.students].filter((student) => section.students.has(student)).length;
  const isCode = theirs.code !== null && foldName(theirs.code) === foldName(section.code);
  const isEmpty = theirs.students.size === 0;
  // A title says nothing of a class that is full of others: comparing it would be in vain.
  if (common === 0 && !isEmpty) return { sectionId: section.sectionId, confidence: 0, reasons: [] };
  const title = compareNames(theirs.title, section.name);
  const isTitle = title !== undefined && title.confidence > 95;
  const of = theirs.students.size + section.students.size - common;
  const reasons: SectionReason[] = [
    ...(isCode ? [{ kind: 'code' } as const] : []),
    isEmpty ? { kind: 'nobody' } : { kind: 'students', common, of },
    { kind: isTitle ? 'title' : title ? 'titleLike' : 'titleOther' },
  ];
  const byName = isTitle ? byTitle : title ? byLikeTitle : 0;
  const byNameAlone = isTitle ? byTitleAlone : title ? byLikeTitleAlone : 0;
  const confidence = isEmpty ? byNameAlone : Math.round((byAllStudents * common) / of) + byName;
  return { sectionId: section.sectionId, confidence: isCode ? Math.max(byCode, confidence) : confidence, reasons };
}
