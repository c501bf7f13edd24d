import type { MarkBody, ReceiptChangeReply } from '#contract/posting';
import type { CertificateBreak, FindingPlace, Scope, SetUpPlace, Severity } from '#core/audit';
import { FindingsRequest } from './finding-keys.js';
import type { FindingNoteReply } from './finding-notes.js';
import type { WaiverReply } from './waivers.js';
import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsInt, IsOptional, IsString, MaxLength } from 'class-validator';

export { brokenInWords } from './broken-in-words.js';
export { findingSentence } from './finding-sentence.js';
export { FindingKeyBody, SeenFindingsRequest } from './finding-keys.js';
export { NoteFindingsRequest, type AssigneeReply, type FindingNoteReply } from './finding-notes.js';
export { WaiveRequest, type WaiverReply } from './waivers.js';
export type { GoneFindingReply } from './gone-findings.js';
export type { SheetFindingCountReply, SheetFindingReply, SheetFindingsReply } from './sheet-findings.js';
export {
  NightlyAuditRequest,
  SaveRuleSettingsRequest,
  type RuleSettingReply,
  type RuleSettingsReply,
  type SetRuleReply,
} from './rule-settings.js';

export class StartAuditRequest {
  @IsInt()
  periodId!: number;
}

/** An audit that is under way, or that came to nothing. */
export interface AuditTaskReply {
  readonly state: 'running' | 'stopped' | 'failed';
  readonly startedBy: string;
  readonly startedAt: string;
  /** How many sections were looked at by all rules, of how many; of none while it begins. */
  readonly sectionsDone: number;
  readonly sectionCount: number;
  /** Why it failed, in a sentence; null where it did not. */
  readonly problem: string | null;
}

/** How far the audit of a period is. */
export interface AuditProgressReply {
  /** Null where none is under way and the last one was done. */
  readonly task: AuditTaskReply | null;
  /** The last one that was done, whoever began it; null for none. */
  readonly runId: number | null;
}

export class MendRequest extends FindingsRequest {
  /** Also on sheets that are signed off: their sign-offs are taken back by the same change. */
  @IsBoolean()
  takesBackSignOffs!: boolean;

  /** The fingerprint of the preview that is carried out; absent to preview. */
  @IsOptional()
  @IsString()
  fingerprint?: string;
}

/** What would be set, or was: nothing that was not looked at. */
export interface MendReply {
  readonly isMended: boolean;
  readonly fingerprint: string;
  /** Sheets of these findings that are signed off. */
  readonly signedOff: number;
  /** As receipts tell of changed grades, with where each stands. */
  readonly changes: readonly (ReceiptChangeReply & { readonly section: string })[];
  readonly skipped: readonly { readonly student: string; readonly section: string; readonly why: string }[];
}

export interface AuditRuleReply {
  readonly id: string;
  readonly version: number;
  readonly family: string;
  readonly scope: Scope;
  /** Where what it finds is set right; null where things of its scope are looked at. */
  readonly settledIn: SetUpPlace | null;
  /** In the run that is shown; of a rule that was switched off, what it would be. */
  readonly severity: Severity;
  readonly isOff: boolean;
  readonly summary: string;
  readonly why: string;
  /** What can be set right without asking anybody, as a button says it; null where nothing can. */
  readonly fix: string | null;
}

/** What a rule would say of a grade that is about to come. */
export interface RuleRemark {
  readonly severity: Severity;
  /** What the rule is called. */
  readonly rule: string;
  readonly says: string;
}

/** What there is no such thing of in a finding is null: a finding about a section has no student and no mark. */
export interface FoundReply extends FindingPlace {
  readonly key: string;
  readonly ruleId: string;
  /** What was found, in a sentence. */
  readonly sentence: string;
  /** What it is about, in a word or two: a student, a section, a course or an item. */
  readonly subject: string;
  readonly studentId: number | null;
  readonly student: string | null;
  /** Where its sheet or section is opened, if it is about one or about somebody in one. */
  readonly openSectionId: number | null;
  readonly section: string | null;
  readonly course: string | null;
  readonly teacher: string | null;
  readonly itemName: string | null;
  /** As it is posted now, which may no longer be what the run saw. */
  readonly mark: MarkBody | null;
  readonly computed: string | null;
  readonly postedBy: string | null;
  readonly postedAt: string | null;
}

/** A finding of a run, and what was done about it. */
export interface FindingReply extends FoundReply {
  readonly isNew: boolean;
  /** Whether it is there no longer, as was seen when what was changed after the run was looked at again. */
  readonly isGone: boolean;
  /** Null where nobody let it stand. */
  readonly waiver: WaiverReply | null;
  /** Of the waiver, or of there being none. */
  readonly waiverRevision: string;
  /** Null where nobody said anything of it. */
  readonly note: FindingNoteReply | null;
  /** Of the note, or of there being none. */
  readonly noteRevision: string;
  /** Null where no teacher was told of it. */
  readonly notice: FindingNoticeReply | null;
}

/** What was looked at again as somebody asked, as it was changed after the run. */
export interface LookedAgainReply {
  /** False where they are too many to be looked at while somebody waits. */
  readonly isLooked: boolean;
  /** Whether something was changed that only another audit sees: the set-up, people, grade books. */
  readonly isBeyond: boolean;
  /** What is found now and was not in the run; it can be settled after the next one. */
  readonly added: readonly FoundReply[];
}

export interface AuditRunReply {
  readonly id: number;
  readonly startedBy: string;
  readonly startedAt: string;
  readonly gradesChecked: number;
  readonly milliseconds: number;
  /** Rules that could not run, by their ids: nobody may take them for clean. */
  readonly faults: readonly { readonly ruleId: string; readonly problem: string }[];
  readonly findings: readonly FindingReply[];
  /** Compared with the run before; null for the first run. */
  readonly sinceLastRun: {
    readonly added: number;
    readonly still: number;
    readonly gone: number;
    readonly at: string;
  } | null;
  /** Grades saved after the run began. */
  readonly changedSince: number;
  readonly again: LookedAgainReply;
}

/** How often each label is posted, in the order of the labels of the reply. */
export interface DistributionReply {
  /** Of a section or of a period. */
  readonly name: string;
  readonly grades: number;
  readonly counts: readonly number[];
}

/** How far the mean percentage of a section lies above that of its sister sections, in points of percent with one decimal. */
export interface MeanShiftReply {
  readonly shift: string;
  /** The interval that covers it in 95 of 100 such comparisons. */
  readonly low: string;
  readonly high: string;
  readonly own: number;
  readonly others: number;
}

export interface DistributionsReply {
  /** Null where fewer than ten percentages are on either side. */
  readonly shift: MeanShiftReply | null;
  /** Best first. */
  readonly labels: readonly string[];
  /** Null, as none of the others is there, for fewer than ten grades. */
  readonly own: DistributionReply | null;
  readonly sisters: readonly DistributionReply[];
  readonly earlier: readonly DistributionReply[];
}

export class SendFindingsRequest extends FindingsRequest {
  /** What is added at the end of each message. */
  @IsOptional()
  @IsString()
  @MaxLength(1000, { message: 'at most 1,000 characters' })
  note?: string;

  /** The fingerprint of the preview that is sent; absent to preview. */
  @IsOptional()
  @IsString()
  fingerprint?: string;
}

export interface FindingsMessageReply {
  readonly teacherId: number;
  readonly teacher: string;
  readonly address: string;
  readonly findings: number;
  /** How many of them the teacher was told of before. */
  readonly earlier: number;
  readonly subject: string;
  readonly text: string;
}

export interface SendFindingsReply {
  readonly fingerprint: string;
  readonly messages: readonly FindingsMessageReply[];
  /** What no teacher is told of, and why. */
  readonly skipped: readonly { readonly who: string; readonly why: string }[];
  readonly isSent: boolean;
}

/** That a teacher was told of a finding, the last time. */
export interface FindingNoticeReply {
  readonly to: string;
  readonly at: string;
  /** Whether the grade was saved since. */
  readonly isAnswered: boolean;
}

export class CertifyRequest extends StartAuditRequest {
  /** The courses that it is about; none, or absent, for all of the school. */
  @IsOptional()
  @IsArray()
  @ArrayUnique()
  @ArrayMaxSize(2000)
  @IsInt({ each: true })
  courseIds?: number[];

  /** For whoever reads the certificate. */
  @IsString()
  @MaxLength(1000, { message: 'at most 1,000 characters' })
  note!: string;
}

/** A certificate that the audit of a period, or of some of its courses, was closed with. */
export interface CertificateReply {
  readonly id: number;
  /** Title and code of each course that it is about; none for all of the school. */
  readonly courses: readonly string[];
  readonly by: string;
  readonly at: string;
  readonly note: string;
  readonly grades: number;
  readonly waivers: number;
  readonly gradesHash: string;
  /** What it rested on and is no longer so; nothing where it stands. */
  readonly broken: readonly CertificateBreak[];
}

/** How far a course is from being certified by itself. */
export interface CourseStandingReply {
  readonly id: number;
  readonly code: string;
  readonly title: string;
  readonly department: string;
  /** Sections that report something in the period. */
  readonly sections: number;
  /** Findings of the last audit that block it and that nobody let stand. */
  readonly blocking: number;
  /** Findings that nobody let stand, of whatever severity. */
  readonly open: number;
  /** Grades saved after the audit began. */
  readonly changed: number;
  /** Whether a certificate of chosen courses that names it holds. */
  readonly isCertified: boolean;
}

export interface CourseCertificatesReply {
  /** The last one of each choice of courses, the newest first. */
  readonly certificates: readonly CertificateReply[];
  /** By title. */
  readonly courses: readonly CourseStandingReply[];
}

export interface AuditReply {
  readonly rules: readonly AuditRuleReply[];
  /** Null when the period was never audited. */
  readonly run: AuditRunReply | null;
  /** Of all of the school; null where none was issued. */
  readonly certificate: CertificateReply | null;
}
