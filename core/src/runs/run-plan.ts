import type { ScoreFlag } from '#core/calculation';
import type { Day } from '#core/calendar';
import type { MatchDecision } from '#core/matching';
import type { EntryRules, Mark } from '#core/posting';
import type { LedgerOutcome, RunReason } from './run-reasons.js';

/** A class as its platform tells it. Keys are the platform's ids; points are decimals as text. */
export interface TheirClass {
  readonly title: string;
  readonly assignments: readonly TheirAssignment[];
  readonly totals: readonly TheirTotal[];
  /** What the weights of its groups come to, in percent; null where it weighs nothing. */
  readonly weightSum: string | null;
}

export interface TheirAssignment {
  readonly key: string;
  readonly name: string;
  /** Points at most; null where the platform states none. */
  readonly possible: string | null;
  readonly groupKey: string | null;
  readonly dueOn: Day | null;
  /** Whether the teacher lets it be sent to the information system. */
  readonly isMarked: boolean;
  readonly isPublished: boolean;
  readonly isGraded: boolean;
  /** Keys of the people it was given to; null for the whole class. */
  readonly givenTo: readonly string[] | null;
  readonly results: readonly TheirResult[];
}

/** The column of the whole class. */
export interface TheirTotal {
  readonly key: string;
  readonly name: string;
  readonly results: readonly TheirResult[];
}

export interface TheirResult {
  readonly personKey: string;
  readonly points: string | null;
  readonly possible: string | null;
  readonly letter: string | null;
}

/** What we hold where a class is to be carried over to. */
export interface OurClass {
  readonly decision: MatchDecision;
  /** Null unless the class is joined to a section that runs through the period. */
  readonly section: OurSectionBook | null;
  /** Name of the section that the class is joined to, also where that section does not run in the period. */
  readonly sectionName: string | null;
  readonly period: { readonly name: string; readonly startsOn: Day; readonly endsOn: Day; readonly isSealed: boolean };
  readonly groups: ReadonlyMap<string, Joined<number>>;
  readonly people: ReadonlyMap<string, Joined<number> & { readonly name: string }>;
  readonly letters: ReadonlyMap<string, Joined<string>>;
  readonly totals: ReadonlyMap<string, Joined<number>>;
  /** For what comes without a group, or with one that nobody joined; null to refuse it. */
  readonly defaultCategoryId: number | null;
}

export interface Joined<Target> {
  readonly decision: MatchDecision;
  /** Null unless joined. */
  readonly target: Target | null;
}

export interface OurSectionBook {
  readonly students: ReadonlyMap<number, OurStudent>;
  readonly assignments: readonly OurAssignment[];
  /** Keys of assignments that were carried over once and removed here since. */
  readonly removedKeys: ReadonlySet<string>;
  readonly scores: ReadonlyMap<string, OurScore>;
  readonly items: ReadonlyMap<number, OurItem>;
}

export interface OurStudent {
  readonly enrollmentId: number;
  readonly name: string;
  readonly withdrawnOn: Day | null;
}

export interface AssignmentFacts {
  readonly name: string;
  /** Points at most, as plain text such as "20". */
  readonly possible: string;
  readonly dueOn: Day;
  readonly categoryId: number;
  /** Enrollments in ascending order; null for everybody. */
  readonly givenTo: readonly number[] | null;
}

export interface OurAssignment {
  readonly id: number;
  /** The platform's key, where a run made it or took it up; and whether the class that is planned has that column. */
  readonly key: string | null;
  readonly isOfClass: boolean;
  readonly facts: AssignmentFacts;
  readonly isExtra: boolean;
  /** Whether somebody here changed it, or made it, since a run wrote it. */
  readonly isOurs: boolean;
}

export interface ScoreFacts {
  readonly points: string | null;
  readonly flag: ScoreFlag | null;
}

export interface OurScore {
  readonly facts: ScoreFacts;
  readonly isOurs: boolean;
}

/** A report item that totals of the class may be joined to. */
export interface OurItem {
  readonly id: number;
  readonly name: string;
  readonly takesMarks: boolean;
  /** The sheet of the section is signed off. */
  readonly isSignedOff: boolean;
  /** Null where no scale is in force for the section. */
  readonly scale: EntryRules | null;
  readonly marks: ReadonlyMap<number, { readonly mark: Mark; readonly isOurs: boolean }>;
}

export interface MarkFacts {
  readonly percent: string | null;
  readonly label: string | null;
  readonly code: string | null;
}

export interface RunChoices {
  /** What becomes of something here that somebody entered or changed by hand. */
  readonly mode: 'keep' | 'replace';
  readonly carriesWork: boolean;
  readonly carriesTotals: boolean;
}

/** A total is the column whose results become marks. */
export const rowKinds = ['class', 'assignment', 'total', 'score', 'mark'] as const;
export type RowKind = (typeof rowKinds)[number];

/** One line of the plan. Scores that are the same, blank or held back have no line: their assignment counts them. */
export interface LedgerRow {
  readonly kind: RowKind;
  readonly outcome: LedgerOutcome;
  readonly reasons: readonly RunReason[];
  /** Title of the class, name of the assignment or of the student. */
  readonly name: string;
  /** The platform's key of the assignment or total; empty for a class. */
  readonly columnKey: string;
  /** The platform's key of the person; empty unless a score or mark. */
  readonly personKey: string;
  /** Null while the assignment is not here yet. */
  readonly assignmentId: number | null;
  readonly enrollmentId: number | null;
  readonly itemId: number | null;
  readonly before: AssignmentFacts | ScoreFacts | MarkFacts | null;
  readonly after: AssignmentFacts | ScoreFacts | MarkFacts | null;
  readonly same: number;
  readonly blank: number;
  /** Scores or marks that were not looked at, as their class or column is not carried over. */
  readonly heldBack: number;
}

/** The key under which a section's scores are known. */
export function bookKey(assignmentId: number, enrollmentId: number): string {
  return `${assignmentId}/${enrollmentId}`;
}

/** A line in which nothing is said yet but what it is about. */
export const emptyRow: Omit<LedgerRow, 'kind' | 'outcome' | 'name'> = {
  reasons: [],
  columnKey: '',
  personKey: '',
  assignmentId: null,
  enrollmentId: null,
  itemId: null,
  before: null,
  after: null,
  same: 0,
  blank: 0,
  heldBack: 0,
};
