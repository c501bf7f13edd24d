import type { Day } from '#core/calendar';
import type { ExchangeFault } from './check-rows.js';
import { filesOf, type ExchangeFile, type ExchangeRow, type ExchangeRows } from './exchange-format.js';
import { isOfMerged, type MergedIds } from './as-merged.js';
import { asHeld, knownIds, termsOf, together, withKeys } from './fit-rows.js';
import {
  completed,
  hasStopped,
  heldFields,
  isStated,
  keyOf,
  lastStays,
  rolesByUser,
  whyNotHeld,
} from './held-fields.js';
import { teachersAfter } from './teachers-after.js';
import type { Manifest } from './read-manifest.js';
import { rosterFieldsOf, saidIn, type IsHeld } from './roster-fields.js';
import { faultsOf } from './row-faults.js';
import { sameValue } from './same-value.js';
import { schoolsUsing } from './schools-using.js';
import { sealedFault, sealedRows } from './sealed-rows.js';

/** What importing a zip would do with a row. "left" is what Wombat holds nothing of, such as a guardian. */
export const exchangeOutcomes = ['new', 'changed', 'same', 'delete', 'left', 'refuse'] as const;
export type ExchangeOutcome = (typeof exchangeOutcomes)[number];

/** Where a zip is: shown, being written, or written. */
export const exchangeStatuses = ['read', 'accepting', 'accepted'] as const;
export type ExchangeStatus = (typeof exchangeStatuses)[number];

/** Whether importing a row of that outcome writes anything. */
export function isTaking(outcome: ExchangeOutcome): boolean {
  return outcome === 'new' || outcome === 'changed' || outcome === 'delete';
}

export interface PlannedExchangeRow {
  readonly file: ExchangeFile;
  /** Line of the file's table; the head is line 1. */
  readonly line: number;
  readonly outcome: ExchangeOutcome;
  /** As it came; where it changes something that is here, with what it leaves unsaid. */
  readonly row: ExchangeRow;
  readonly faults: readonly ExchangeFault[];
  /** Fields that differ from what is here. */
  readonly changes: readonly string[];
  /** What stands here in each of them. */
  readonly was: readonly string[];
}

/** What is so here, beside the rows. */
export interface ExchangeState {
  /** Ids of the sessions that are sealed. */
  readonly sealed: ReadonlySet<string>;
  /** Records that were merged into others, by the ids that the roster has of both. */
  readonly merged: MergedIds;
  /** In the district. */
  readonly today: Day;
}

/**
 * Decides every row of a zip against what is here, written in the same form: what would be exported now. Two rows with one
 * id are both refused, as which of them is right is not for us to choose; and so is what refers to a refused row. What would
 * change a sealed period is refused row by row.
 * @param files as they are meant here (`asMerged`)
 */
export function planExchange(
  manifest: Manifest,
  files: ExchangeRows,
  here: ExchangeRows,
  { sealed, merged, today }: ExchangeState,
): PlannedExchangeRow[] {
  const zip = withKeys(files, here);
  const all = together(here, zip);
  const using = schoolsUsing(all);
  const known = knownIds(zip, here);
  const teachers = teachersAfter(here.enrollments ?? [], zip.enrollments ?? []);
  const faultContext = { manifest, zip, here, all, known, teachers, using };
  const heldContext = {
    teachers,
    today,
    stays: lastStays(zip.enrollments ?? []),
    district: [...(here.orgs ?? []), ...(zip.orgs ?? [])].find(({ type }) => type === 'district')?.['sourcedId'],
    courses: using.courses,
  };
  const roles = rolesByUser(zip, here);
  const isInSealed = sealedRows(zip, here, sealed);
  const termOf = termsOf(all.academicSessions ?? []);
  const held = knownIds(here);
  const isHeld: IsHeld = (file, id) => held[file]?.has(id) ?? false;
  return filesOf(manifest.version).flatMap((file) => {
    const ours = new Map((here[file] ?? []).map((row) => [keyOf(file, row), row]));
    const faults = faultsOf(file, faultContext);
    const decide = (row: ExchangeRow): Decision => {
      if (isOfMerged(file, row, merged)) return { outcome: 'left', faults: [mergedHere] };
      const own = ours.get(keyOf(file, row));
      const wrong = faults(row, own);
      if (wrong.length > 0) return { outcome: 'refuse', faults: wrong };
      const left = own && file === 'courses' ? undefined : whyNotHeld(file, row, roles, heldContext);
      if (left !== undefined) return { outcome: 'left', faults: [left] };
      if (hasStopped(file, row, heldContext)) return own ? deletion(file) : { outcome: 'left', faults: [stopped] };
      if (row['status'] === 'tobedeleted') return own ? deletion(file) : { outcome: 'same' };
      if (!own) return { outcome: 'new' };
      const changes = differences(file, row, own, termOf, isHeld);
      if (changes.length === 0) return { outcome: 'same' };
      if (file === 'scoreScales') return { outcome: 'left', faults: [nextVersion] };
      const was = changes.map((field) => own[field] ?? '');
      return { outcome: 'changed', changes, was, row: completed(row, own) };
    };
    const planned = (zip[file] ?? []).map((row, at): PlannedExchangeRow => {
      return { file, line: at + 2, row, faults: none, changes: none, was: none, ...decide(row) };
    });
    for (const { outcome, row } of planned) {
      if (outcome === 'refuse') known[file]?.delete(row['sourcedId'] ?? '');
      if (outcome === 'new') (held[file] ??= new Set()).add(row['sourcedId']!);
    }
    // What is sealed stays as it is here, and so others may refer to it.
    return planned.map((each) =>
      isTaking(each.outcome) && isInSealed(file, each.row, each.changes)
        ? { ...each, outcome: 'refuse' as const, faults: [sealedFault(file)] }
        : each,
    );
  });
}

type Decision = Pick<PlannedExchangeRow, 'outcome'> &
  Partial<Pick<PlannedExchangeRow, 'faults' | 'changes' | 'was' | 'row'>>;

/** Shared by all rows that nothing is wrong with. */
const none: readonly never[] = [];

/** The fields in which a row says something else than what is here. */
function differences(
  file: ExchangeFile,
  row: ExchangeRow,
  own: ExchangeRow,
  termOf: (row: ExchangeRow) => string,
  isHeld: IsHeld,
): string[] {
  const [one, other] = [asHeld(file, row, termOf), asHeld(file, own, termOf)];
  const worked = heldFields(file, row).filter(
    (field) => isStated(one, field) && !sameValue(file, field, one[field]!, other[field] ?? ''),
  );
  const further = rosterFieldsOf(file, row).filter((field) => {
    const said = isStated(row, field) ? saidIn(file, field, row, isHeld) : undefined;
    return said !== undefined && !sameValue(file, field, said, own[field] ?? '');
  });
  return [...new Set([...worked, ...further])];
}

/** Two records of one person, of which the roster still has both. */
const mergedHere: ExchangeFault = {
  field: 'sourcedId',
  says: 'this record was merged into another one of the same person, which says who they are; their enrollments count for it',
};

/** Wombat holds who teach a section now. */
const stopped: ExchangeFault = { field: 'endDate', says: 'they have stopped teaching the class' };

/** What is posted keeps the cut-offs it was posted with. */
const nextVersion: ExchangeFault = {
  field: 'scoreScaleValue',
  says: 'a changed scale is its next version, which is made under Scales with what it would do',
};

/** Wombat keeps what grades hang on: only these go, and only from the lists that are worked with. */
const goes: readonly ExchangeFile[] = ['enrollments', 'lineItems', 'results', 'roles'];

function deletion(file: ExchangeFile): Decision {
  if (goes.includes(file)) return { outcome: 'delete' };
  const says = 'grades and transcripts hang on it, so it stays; end its enrollments instead';
  return { outcome: 'left', faults: [{ field: 'status', says }] };
}
