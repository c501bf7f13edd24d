import { readPoints, type ScoreFlag } from '#core/calculation';
import { compareDecimals, decimalOrThrow, formatAtLeast, parseDecimal, type Decimal } from '#core/numbers';
import { bringTo } from './bring-to.js';
import { findStudent } from './find-student.js';
import {
  bookKey,
  emptyRow,
  type AssignmentFacts,
  type LedgerRow,
  type OurClass,
  type OurSectionBook,
  type RunChoices,
  type ScoreFacts,
  type TheirAssignment,
  type TheirResult,
} from './run-plan.js';
import { outcomeOf, type RunReason } from './run-reasons.js';

export interface PlannedScores {
  readonly rows: readonly LedgerRow[];
  readonly same: number;
  /** Not scored there; what is scored here stays. */
  readonly blank: number;
}

/** The scores of one assignment that is here or will be; those that are the same or blank are only counted. */
export function planScores(
  theirs: TheirAssignment,
  here: { readonly id: number | null; readonly isExtra: boolean; readonly facts: AssignmentFacts },
  ours: OurClass,
  section: OurSectionBook,
  { mode }: RunChoices,
): PlannedScores {
  let [same, blank] = [0, 0];
  const rows: LedgerRow[] = [];
  const { possible, givenTo } = here.facts;
  const limit = { possible: decimalOrThrow(possible), isExtra: here.isExtra };
  for (const { personKey, ...result } of theirs.results) {
    const points = pointsOf(result, possible);
    if (points === null) {
      blank++;
      continue;
    }
    const { student, name, reasons } = findStudent(personKey, ours, section);
    const read = readPoints(points, limit);
    const known = student && here.id !== null ? section.scores.get(bookKey(here.id, student.enrollmentId)) : undefined;
    const after: ScoreFacts = {
      points: 'points' in read ? formatAtLeast(read.points, 0) : points,
      flag: flagBeside(known?.facts.flag ?? null),
    };
    const isNotGiven = student && givenTo !== null && !givenTo.includes(student.enrollmentId);
    const before = known && (known.facts.points ?? known.facts.flag) !== null ? known.facts : null;
    const isSame =
      before !== null && 'points' in read && samePoints(before.points, read.points) && before.flag === after.flag;
    const isKept = !isSame && before !== null && known!.isOurs && mode === 'keep';
    const all: RunReason[] = [
      ...reasons,
      ...(isNotGiven ? [{ code: 'not-given' as const }] : []),
      ...('fault' in read ? [{ code: read.fault, about: `${points}|${possible}` }] : []),
      ...(isKept ? [{ code: 'kept' as const }] : []),
    ];
    const outcome = outcomeOf(all, isSame ? 'same' : before === null ? 'create' : 'change');
    if (outcome === 'same') same++;
    else
      rows.push({
        ...emptyRow,
        kind: 'score',
        outcome,
        reasons: all,
        name,
        columnKey: theirs.key,
        personKey,
        assignmentId: here.id,
        enrollmentId: student?.enrollmentId ?? null,
        before,
        after,
      });
  }
  return { rows, same, blank };
}

/** What a score leaves of the flag that stood there: points answer that something is missing, incomplete, absent or not marked. */
function flagBeside(flag: ScoreFlag | null): ScoreFlag | null {
  return flag === 'late' || flag === 'exempt' ? flag : null;
}

/** A score that is out of something else than its assignment is brought to the assignment's points, exactly. */
function pointsOf({ points, possible: outOf }: Omit<TheirResult, 'personKey'>, possible: string): string | null {
  if (points === null || outOf === null || outOf === possible) return points;
  const assignment = decimalOrThrow(possible);
  const most = parseDecimal(outOf);
  if (!most || compareDecimals(most, assignment) === 0) return points;
  const brought = bringTo(points, outOf, assignment);
  return brought ? formatAtLeast(brought, 0) : points;
}

function samePoints(ours: string | null, theirs: Decimal): boolean {
  return ours !== null && compareDecimals(decimalOrThrow(ours), theirs) === 0;
}
