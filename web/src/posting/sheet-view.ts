import { findingSentence } from '#contract/audit';
import {
  gradeRules,
  itemFactOf,
  noSections,
  runRules,
  shownBySheet,
  type Finding,
  type GradeFact,
  type JudgedItem,
  type Severity,
} from '#core/audit';
import type { Day } from '#core/calendar';
import { decimalOrThrow, formatDecimal, type Percent } from '#core/numbers';
import { findBand, readBands, type Band } from '#core/scales';
import { computedOf, entryRulesFor, isOverride, proposedMark, type EntryRules, type Mark } from '#core/posting';
import type { SpecialCode } from '#core/codes';
import {
  bodyOfMark,
  markInWords,
  markOfBody,
  type MarkBody,
  type SheetReply,
  type SheetRowReply,
} from '#contract/posting';
import { codeOfBody } from '#contract/codes';
import { agreeing, listed } from '#contract/messages';
import { showDay, showLabel, showPercent } from '../ui/format';
import type { MarkDraft, MarkDrafts } from './mark-drafts';
import type { EditableColumn } from './sheet-columns';

/** A row of the sheet as it is shown: what is saved, what is drafted over it, and what there is to say about it. */
export interface SheetRow {
  readonly reply: SheetRowReply;
  readonly mark: Mark;
  readonly computed: Percent | null;
  /** What taking what is computed would post; null where nothing is. */
  readonly proposal: Mark | null;
  /** The label that the computed percentage would have. */
  readonly computedLabel: string | null;
  /** Something else is posted, or typed, than what is computed. */
  readonly isOverride: boolean;
  readonly isUnsaved: boolean;
  /** Somebody else saved the grade after the draft was begun. */
  readonly isContested: boolean;
  /** The last date that the mark lacks, by attendance or by its code; it is never put in unasked. */
  readonly proposedDay: Day | null;
  readonly remarks: readonly Remark[];
}

export interface Remark {
  readonly severity: Severity;
  readonly says: string;
}

/** Points are a matter of the set-up, not of whoever posts. */
const marginRules = gradeRules.filter(({ id }) => !shownBySheet.has(id) && id !== 'label-without-points');

/** The bands of one of the sheet's scale versions. */
export function bandsOf(sheet: SheetReply, version: number): readonly Band[] {
  return readBands(sheet.scales.find((scale) => scale.version === version)!.bands).bands;
}

export function entryRulesOf(sheet: SheetReply): EntryRules {
  const highestLevel = sheet.highestLevel === null ? null : decimalOrThrow(sheet.highestLevel);
  const item = { ...sheet, highestPercent: decimalOrThrow(sheet.highestPercent) };
  return entryRulesFor({ bands: bandsOf(sheet, sheet.scaleVersion), highestLevel }, item, sheet.codes.map(codeOfBody));
}

/**
 * The rows of a sheet with drafts laid over them. Asked again with other drafts, it looks anew only at the students for whom
 * something else is typed; the rows of the others are the very same.
 */
export function createSheetRows(sheet: SheetReply, rules: EntryRules) {
  const codes = new Map(rules.codes.map((code) => [code.code, code]));
  const known = new Map<number, { readonly draft: MarkDraft | undefined; readonly row: SheetRow }>();
  const rowOf = (reply: SheetRowReply, draft: MarkDraft | undefined): SheetRow => {
    const mark = markOfBody(draft?.mark ?? reply.mark);
    const computed = computedOf(reply);
    const proposal = proposedMark(reply, mark, rules);
    const isOther = reply.withdrawnOn === null && isOverride(mark, proposal);
    const isContested = draft !== undefined && draft.version !== reply.version;
    // An unsaved mark will be posted under the version in force; a saved one keeps its own.
    const bands = draft ? rules.bands : bandsOf(sheet, reply.scaleVersion);
    const findings = findingsOn(sheet, codes, bands, reply, { mark, computed, proposal, isDraft: draft !== undefined });
    const proposedDay = proposedDayOf(sheet, reply, mark, codes, findings);
    const theirs = `${reply.postedBy ?? 'Someone else'} saved ${markInWords(reply.mark)} meanwhile.`;
    return {
      reply,
      mark,
      computed,
      proposal,
      isOverride: isOther,
      computedLabel: computed
        ? (findBand(rules.bands, computed, rules.precision).band?.label ?? null)
        : reply.composite?.kind === 'value'
          ? reply.composite.label
          : null,
      isUnsaved: draft !== undefined,
      isContested,
      proposedDay,
      remarks: [
        ...(isContested ? [{ severity: 'blocks' as const, says: theirs }] : []),
        ...compositeRemarks(reply),
        ...bookRemarks(reply),
        ...findings.flatMap((finding) => remarkOf(sheet, finding)),
        ...dayRemarks(sheet, reply, proposedDay),
      ],
    };
  };
  return (drafts: MarkDrafts): SheetRow[] =>
    sheet.rows.map((reply) => {
      const draft = drafts[reply.enrollmentId];
      const before = known.get(reply.enrollmentId);
      if (before && before.draft === draft) return before.row;
      const row = rowOf(reply, draft);
      known.set(reply.enrollmentId, { draft, row });
      return row;
    });
}

/** The rows of a sheet with drafts laid over them, once. */
export function sheetRows(sheet: SheetReply, drafts: MarkDrafts, rules: EntryRules): SheetRow[] {
  return createSheetRows(sheet, rules)(drafts);
}

/** What the cells of a row say. */
export function textsOfRow({ mark }: SheetRow): Record<EditableColumn, string> {
  return {
    percent: mark.percent ? showPercent(formatDecimal(mark.percent)) : '',
    mark: mark.code ?? (mark.label === null ? '' : showLabel(mark.label)),
    reason: mark.overrideReason,
    lastDate: mark.lastDate ? showDay(mark.lastDate) : '',
    hours: mark.hours ? formatDecimal(mark.hours) : '',
    comment: mark.comment,
  };
}

/** Assignments that keep the section's own grade book from coming to anything. */
function bookRemarks({ blockedBy, withdrawnOn }: SheetRowReply): Remark[] {
  if (withdrawnOn !== null || blockedBy.length === 0) return [];
  const says = `${listed(blockedBy)} ${agreeing(blockedBy.length, 'blocks')} the grade until it is resolved.`;
  return [{ severity: 'informs', says }];
}

/** Why a composite has no value. */
function compositeRemarks({ composite, withdrawnOn }: SheetRowReply): Remark[] {
  if (!composite || composite.kind === 'value' || withdrawnOn !== null) return [];
  const says = {
    missing: (parts: readonly string[]) => `No value yet: ${listed(parts)} ${agreeing(parts.length, 'is')} missing.`,
    blocked: (by: string, code: string) => `${by} is ${code}, so this is ${code}.`,
    exempt: (code: string) => `Every part is ${code}.`,
  };
  if (composite.kind === 'missing') return [{ severity: 'informs', says: says.missing(composite.parts) }];
  if (composite.kind === 'blocked') return [{ severity: 'informs', says: says.blocked(composite.by, composite.code) }];
  return [{ severity: 'informs', says: says.exempt(composite.code) }];
}

/** What is proposed for a last date that is needed and missing: the first day for who never came, else the last day present. */
function proposedDayOf(
  { period }: SheetReply,
  { attendance }: SheetRowReply,
  { code }: Mark,
  codes: ReadonlyMap<string, SpecialCode>,
  findings: readonly Finding[],
): Day | null {
  const isMissing = findings.some(({ ruleId, message }) => ruleId === 'last-date-needed' && message === 'missing');
  if (!isMissing) return null;
  return code !== null && codes.get(code)?.needsFirstDay ? period.startsOn : (attendance?.lastPresent ?? null);
}

function dayRemarks({ period }: SheetReply, { attendance }: SheetRowReply, proposed: Day | null): Remark[] {
  if (proposed === null) return [];
  const isLastPresent = proposed === attendance?.lastPresent;
  const says = isLastPresent
    ? `Last present ${showDay(proposed)}; = takes it.`
    : `The first day of ${period.name} is ${showDay(proposed)}; = takes it.`;
  return [{ severity: 'informs', says }];
}

/** The item of a sheet as rules judge it. */
export function judgedItemOf(sheet: SheetReply): JudgedItem {
  const { itemId: id, itemName: name, highestPercent, ...facts } = sheet;
  return { ...facts, id, name, highestPercent: decimalOrThrow(highestPercent) };
}

/** What of a row is as it is typed. */
interface TypedFacts {
  readonly mark: Mark;
  readonly computed: Percent | null;
  readonly proposal: Mark | null;
  readonly isDraft: boolean;
}

/** What the rules of the audit find in one row, as if it were posted as it is typed. */
function findingsOn(
  sheet: SheetReply,
  codes: ReadonlyMap<string, SpecialCode>,
  bands: readonly Band[],
  reply: SheetRowReply,
  { isDraft, ...typed }: TypedFacts,
): readonly Finding[] {
  const { enrollmentId, enteredOn, withdrawnOn, attendance, computedThen, postedAt } = reply;
  const highestLevel = sheet.highestLevel === null ? null : decimalOrThrow(sheet.highestLevel);
  const fact: GradeFact = {
    ...typed,
    enrollmentId,
    sectionId: sheet.sectionId,
    enteredOn,
    withdrawnOn,
    attendance,
    // What is typed will be posted now, beside what is computed now.
    computedThen: isDraft || computedThen === null ? null : decimalOrThrow(computedThen),
    postedAt: isDraft ? null : postedAt,
    named: reply,
    classmates: sheet.rows,
    allowsExempt: sheet.allowsExempt,
    item: itemFactOf(judgedItemOf(sheet), sheet.window),
    scale: { name: sheet.scaleName, bands: bands.filter(({ isOff }) => !isOff), highestLevel },
  };
  const { startsOn: periodStartsOn, endsOn: periodEndsOn } = sheet.period;
  const dates = { periodStartsOn, periodEndsOn, today: periodEndsOn, now: periodEndsOn };
  return runRules(marginRules, { ...noSections, ...dates, codes, grades: [fact] });
}

/** What to press about some findings. */
const hints: Readonly<Record<string, string>> = {
  'override-without-reason': ' Say why, or press r to take what is computed.',
  'composite-differs-from-parts': ' Say why, or press r to take what the parts come to.',
};

/** As severe as the rule is in the course; nothing of one that leaves it alone. */
function remarkOf({ ruleEffects }: SheetReply, finding: Finding): Remark[] {
  const rule = marginRules.find(({ id }) => id === finding.ruleId)!;
  const severity = ruleEffects[rule.id] ?? rule.severity;
  return severity === 'off' ? [] : [{ severity, says: findingSentence(rule, finding) + (hints[rule.id] ?? '') }];
}

/** The draft that a mark makes of a row, or null where it is what is saved. */
export function draftOfMark({ mark: saved, version }: SheetRowReply, mark: Mark): MarkDraft | null {
  const body = bodyOfMark(mark);
  const isSaved = (Object.keys(body) as (keyof MarkBody)[]).every((key) =>
    key === 'percent' ? samePercent(body.percent, saved.percent) : body[key] === saved[key],
  );
  return isSaved ? null : { mark: body, version };
}

function samePercent(a: string | null, b: string | null): boolean {
  return a === null || b === null ? a === b : Number(a) === Number(b);
}

/** The middle of the period, near which a typed day without a year is read. */
export function middleOf({ startsOn, endsOn }: { startsOn: Day; endsOn: Day }): Day {
  return new Date((Date.parse(startsOn) + Date.parse(endsOn)) / 2).toISOString().slice(0, 10) as Day;
}
