import type { Mark } from '#core/posting';
import type { Together } from './judged-together.js';
import type { GradeFact, SectionFact, Snapshot } from './snapshot.js';

/** Blocks keeps the period from being sealed; warns and informs do not. */
export type Severity = 'blocks' | 'warns' | 'informs';

/** What a rule looks at, one at a time or beside each other. */
export type Scope = 'grade' | 'student' | 'sheet' | 'section' | 'course' | 'item';

/** What a finding is about, as numbers; null for what it is not about. With the rule, it is by these known again. */
export interface FindingPlace {
  readonly enrollmentId: number | null;
  readonly sectionId: number | null;
  readonly courseId: number | null;
  readonly itemId: number | null;
}

export const nowhere: FindingPlace = { enrollmentId: null, sectionId: null, courseId: null, itemId: null };

export interface RuleFinding extends FindingPlace {
  /** Which of the rule's messages. */
  readonly message: string;
  /** What the message's {words} stand for. */
  readonly data: Readonly<Record<string, string>>;
}

/** Parts of the set-up where the cause of a finding is looked at and set right. */
export type SetUpPlace = 'calculation' | 'matches' | 'scales';

export interface AuditRule {
  /** Permanent, the name of its file, never reused. */
  readonly id: string;
  /** Raised when what the rule finds changes, so that a certificate can say which was used. */
  readonly version: number;
  readonly family:
    | 'completeness'
    | 'agreement'
    | 'dates'
    | 'eligibility'
    | 'comments'
    | 'set-up'
    | 'transcript'
    | 'pattern';
  /** What each of its findings is about. */
  readonly scope: Scope;
  /** Where what it finds is set right, if that is not where things of its scope are looked at. */
  readonly settledIn?: SetUpPlace;
  readonly severity: Severity;
  readonly summary: string;
  /** Why it matters, in one sentence. */
  readonly why: string;
  readonly messages: Readonly<Record<string, string>>;
  /** Where the rule begins to find something, if a school may say so; `check` is handed what is in force. */
  readonly threshold?: RuleThreshold;
  check(snapshot: Snapshot, threshold: number): Iterable<RuleFinding>;
  /** How it judges a period part by part; none where what it finds in a section rests on that section alone. */
  readonly together?: Together<unknown>;
  /** What can be set right without asking anybody; none where only a person knows what is right. */
  readonly fix?: RuleFix;
}

export interface RuleThreshold {
  /** What it is, with its unit: "Largest share of the grade, in percent". */
  readonly says: string;
  readonly usual: number;
  /** The smallest and the largest that make sense. */
  readonly least: number;
  readonly most: number;
}

export interface RuleFix {
  /** What it does, as a button says it: "Set the label by the percentage". */
  readonly says: string;
  /** The mark as it would be; null where this grade gives nothing to go by. */
  mend(grade: GradeFact, period: Omit<Snapshot, 'grades' | 'sections'>): Mark | null;
}

type Said = Pick<RuleFinding, 'message' | 'data'>;

/** The finding of a rule about one grade. */
export function findingOn({ enrollmentId, item }: GradeFact, message: string, data: Said['data']): RuleFinding {
  return { ...nowhere, enrollmentId, itemId: item.id, message, data };
}

/** Which sheet. */
interface SheetPlace {
  readonly section: { readonly id: number };
  readonly item: { readonly id: number };
}

/** About the sheet of an item in a section. */
export function findingOnSheet({ section, item }: SheetPlace, message: string, data: Said['data']): RuleFinding {
  return { ...nowhere, sectionId: section.id, itemId: item.id, message, data };
}

export function findingOnSection({ id }: SectionFact, message: string, data: Said['data']): RuleFinding {
  return { ...nowhere, sectionId: id, message, data };
}

/** About a student in a section, whatever is posted there. */
export function findingOnStudent(enrollmentId: number, message: string, data: Said['data']): RuleFinding {
  return { ...nowhere, enrollmentId, message, data };
}
