import { auditRules, findingSentence, runRules, type Severity } from '#core/audit';
import type { Day } from '#core/calendar';
import { decimalOrThrow, roundings, type Percent } from '#core/numbers';
import { findBand, readBands, type Band } from '#core/scales';
import type { EntryRules, Mark, SpecialCode } from '#core/posting';
import { bodyOfMark, markOfBody, type MarkBody, type SheetReply, type SheetRowReply } from '#contract/posting';
import type { MarkDraft, SheetDrafts } from './mark-drafts';

/** A row of the sheet as it is shown: what is saved, what is drafted over it, and what there is to say about it. */
export interface SheetRow {
  readonly reply: SheetRowReply;
  readonly mark: Mark;
  readonly computed: Percent | null;
  /** The label that the computed percent would have. */
  readonly computedLabel: string | null;
  readonly isUnsaved: boolean;
  /** Somebody else saved the grade after the draft was begun. */
  readonly isContested: boolean;
  readonly remarks: readonly Remark[];
}

export interface Remark {
  readonly severity: Severity;
  readonly says: string;
}

/** In the margin a blank says enough by itself. */
const marginRules = auditRules.filter(({ id }) => id !== 'grade-missing');

/** The bands of one of the sheet's scale versions. */
export function bandsOf(sheet: SheetReply, version: number): readonly Band[] {
  return readBands(sheet.scales.find((scale) => scale.version === version)!.bands).bands;
}

export function entryRulesOf(sheet: SheetReply): EntryRules {
  const precision = { digits: sheet.digits, rounding: roundings[sheet.rounding] };
  return { bands: bandsOf(sheet, sheet.scaleVersion), precision, codes: sheet.codes };
}

/** The rows of a sheet with the drafts laid over them. */
export function sheetRows(sheet: SheetReply, drafts: SheetDrafts, rules: EntryRules): SheetRow[] {
  const codes = new Map(sheet.codes.map((code) => [code.code, code]));
  return sheet.rows.map((reply) => {
    const draft = drafts.marks[reply.enrollmentId];
    const mark = markOfBody(draft?.mark ?? reply.mark);
    const computed = reply.computed && decimalOrThrow(reply.computed.percent);
    const isContested = draft !== undefined && draft.version !== reply.version;
    // An unsaved mark will be posted under the version in force; a saved one keeps its own.
    const bands = draft ? rules.bands : bandsOf(sheet, reply.scaleVersion);
    return {
      reply,
      mark,
      computed,
      computedLabel: computed ? (findBand(rules.bands, computed, rules.precision).band?.label ?? null) : null,
      isUnsaved: draft !== undefined,
      isContested,
      remarks: [
        ...(isContested
          ? [
              {
                severity: 'blocks' as const,
                says: `${reply.postedBy ?? 'Somebody'} saved ${showMark(reply.mark)} meanwhile.`,
              },
            ]
          : []),
        ...remarksOn(sheet, rules, codes, bands, reply, mark),
      ],
    };
  });
}

function remarksOn(
  sheet: SheetReply,
  { precision }: EntryRules,
  codes: ReadonlyMap<string, SpecialCode>,
  bands: readonly Band[],
  { enrollmentId, withdrawnOn }: SheetRowReply,
  mark: Mark,
): Remark[] {
  const item = { id: sheet.itemId, name: sheet.itemName, precision, failingNeedsLastDate: sheet.failingNeedsLastDate };
  const fact = { enrollmentId, mark, withdrawnOn, item, scale: { name: sheet.scaleName, bands } };
  const { startsOn, endsOn } = sheet.period;
  const found = runRules(marginRules, { periodStartsOn: startsOn, periodEndsOn: endsOn, codes, grades: [fact] });
  return found.map((finding) => {
    const rule = marginRules.find(({ id }) => id === finding.ruleId)!;
    return { severity: rule.severity, says: findingSentence(rule, finding) };
  });
}

/** A mark in a few characters, for sentences. */
export function showMark({ percent, label, code }: MarkBody): string {
  return [percent && `${percent} %`, label, code].filter(Boolean).join(' ') || 'a blank';
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
