import { foldName } from '#core/matching';
import { compareDecimals, decimalOrThrow } from '#core/numbers';
import { checkAssignment } from './check-assignment.js';
import { planMarks } from './plan-marks.js';
import { planScores } from './plan-scores.js';
import {
  bookKey,
  emptyRow,
  type AssignmentFacts,
  type LedgerRow,
  type OurAssignment,
  type OurClass,
  type OurSectionBook,
  type RunChoices,
  type TheirAssignment,
  type TheirClass,
} from './run-plan.js';
import { isWriting, outcomeOf, type RunReason } from './run-reasons.js';

/**
 * Decides what carrying a class over would do with everything in it, without writing. What is the same on both sides
 * comes out as "same", so that a plan that was carried out, planned again, writes nothing.
 */
export function planClass(theirs: TheirClass, ours: OurClass, choices: RunChoices): LedgerRow[] {
  const reasons = classReasons(theirs, ours);
  const row: LedgerRow = {
    ...emptyRow,
    kind: 'class',
    name: theirs.title,
    outcome: outcomeOf(reasons, 'same'),
    reasons,
  };
  const { section } = ours;
  if (row.outcome !== 'same' || section === null) return [{ ...row, heldBack: heldBackBy(theirs, choices) }];
  return [
    ...(reasons.length > 0 ? [row] : []),
    ...(choices.carriesWork ? planWork(theirs, ours, section, choices) : []),
    ...(choices.carriesTotals ? theirs.totals.flatMap((total) => planMarks(total, ours, section, choices)) : []),
  ];
}

function classReasons({ weightSum }: TheirClass, ours: OurClass): RunReason[] {
  if (ours.decision === 'open') return [{ code: 'class-open' }];
  if (ours.decision === 'ignored') return [{ code: 'class-ignored' }];
  const { name, isSealed } = ours.period;
  if (ours.section === null) return [{ code: 'other-term', about: `${ours.sectionName ?? ''}|${name}` }];
  const isUneven = weightSum !== null && compareDecimals(decimalOrThrow(weightSum), decimalOrThrow('100')) !== 0;
  return [
    ...(isSealed ? [{ code: 'period-sealed' as const, about: name }] : []),
    ...(isUneven ? [{ code: 'weights-not-100' as const, about: weightSum }] : []),
  ];
}

function heldBackBy({ assignments, totals }: TheirClass, { carriesWork, carriesTotals }: RunChoices): number {
  const count = (columns: readonly { readonly results: readonly unknown[] }[]) =>
    columns.reduce((sum, { results }) => sum + results.length, 0);
  return (carriesWork ? assignments.length + count(assignments) : 0) + (carriesTotals ? count(totals) : 0);
}

function planWork(theirs: TheirClass, ours: OurClass, section: OurSectionBook, choices: RunChoices): LedgerRow[] {
  const here = counterparts(theirs.assignments, section.assignments);
  const rows = theirs.assignments.flatMap((assignment) => {
    const known = here.get(assignment.key);
    const { row, facts } = planAssignment(assignment, known, ours, section, choices);
    if (facts === null) {
      const scored = assignment.results.filter(({ points }) => points !== null).length;
      return [{ ...row, heldBack: scored, blank: assignment.results.length - scored }];
    }
    const { rows, same, blank } = planScores(
      assignment,
      { id: known?.id ?? null, isExtra: known?.isExtra ?? false, facts },
      ours,
      section,
      choices,
    );
    return [{ ...row, same, blank }, ...rows];
  });
  return [...rows, ...goneThere(theirs.assignments, section.assignments)];
}

/** What a run brought from the class and the platform no longer has: it stays, and counts, until somebody deletes it here. */
function goneThere(theirs: readonly TheirAssignment[], ours: readonly OurAssignment[]): LedgerRow[] {
  const keys = new Set(theirs.map(({ key }) => key));
  return ours.flatMap(({ id, key, isOfClass, facts }): LedgerRow[] => {
    if (key === null || !isOfClass || keys.has(key)) return [];
    const reasons = [{ code: 'gone-there' as const }];
    const own = { kind: 'assignment' as const, name: facts.name, columnKey: key, assignmentId: id, before: facts };
    return [{ ...emptyRow, ...own, outcome: 'skip', reasons }];
  });
}

/** The row of the assignment, and the facts that its scores will meet; null where they are held back. */
function planAssignment(
  theirs: TheirAssignment,
  known: OurAssignment | undefined,
  ours: OurClass,
  section: OurSectionBook,
  choices: RunChoices,
): { row: LedgerRow; facts: AssignmentFacts | null } {
  const { reasons: checks, facts: after } = checkAssignment(theirs, ours, section);
  const isRemoved = !known && section.removedKeys.has(theirs.key);
  const isTakenUp = known !== undefined && known.key === null;
  const reasons: RunReason[] = [
    ...checks,
    ...(isRemoved ? [{ code: 'removed-here' as const }] : []),
    ...(isTakenUp ? [{ code: 'taken-up' as const }] : []),
  ];
  const base = {
    ...emptyRow,
    kind: 'assignment' as const,
    name: theirs.name,
    columnKey: theirs.key,
    assignmentId: known?.id ?? null,
  };
  const stopped = outcomeOf(reasons, 'same');
  if (after === null || stopped !== 'same')
    return { row: { ...base, outcome: stopped, reasons, before: known?.facts ?? null, after }, facts: null };
  if (!known) return { row: { ...base, outcome: 'create', reasons, after }, facts: after };
  if (sameFacts(known.facts, after))
    return { row: { ...base, outcome: 'same', reasons, before: after, after }, facts: after };
  const isKept = known.isOurs && choices.mode === 'keep';
  const above = isKept ? [] : scoresLeftAbove(theirs, known, after, ours, section, choices);
  const all: RunReason[] = [
    ...reasons,
    ...(isKept ? [{ code: 'kept' as const }] : []),
    ...(above.length > 0
      ? [{ code: 'points-below-scores' as const, about: `${above.length}|${after.possible}|${above.join('; ')}` }]
      : []),
  ];
  const outcome = outcomeOf(all, 'change');
  const facts = outcome === 'change' ? after : outcome === 'skip' ? known.facts : null;
  return { row: { ...base, outcome, reasons: all, before: known.facts, after }, facts };
}

/**
 * Which assignment of ours each of theirs is: the one that a run made of it or took up, else the only one here of the
 * same name that belongs to no other.
 */
function counterparts(
  theirs: readonly TheirAssignment[],
  ours: readonly OurAssignment[],
): ReadonlyMap<string, OurAssignment> {
  const byKey = new Map(ours.flatMap((each) => (each.key === null ? [] : [[each.key, each] as const])));
  const free = byFoldedName(
    ours.filter(({ key }) => key === null),
    ({ facts }) => facts.name,
  );
  const seeking = byFoldedName(
    theirs.filter(({ key }) => !byKey.has(key)),
    ({ name }) => name,
  );
  return new Map(
    theirs.flatMap((assignment): [string, OurAssignment][] => {
      const known = byKey.get(assignment.key);
      if (known) return [[assignment.key, known]];
      const name = foldName(assignment.name);
      const [same, ...others] = free.get(name) ?? [];
      const isClear = same && others.length === 0 && seeking.get(name)?.length === 1;
      return isClear ? [[assignment.key, same]] : [];
    }),
  );
}

function byFoldedName<Each>(all: readonly Each[], nameOf: (each: Each) => string): ReadonlyMap<string, Each[]> {
  const groups = new Map<string, Each[]>();
  for (const each of all) {
    const name = foldName(nameOf(each));
    groups.set(name, [...(groups.get(name) ?? []), each]);
  }
  return groups;
}

/** The scores here that would be left above the new points, as nothing that is written with them puts them right. */
function scoresLeftAbove(
  theirs: TheirAssignment,
  known: OurAssignment,
  after: AssignmentFacts,
  ours: OurClass,
  section: OurSectionBook,
  choices: RunChoices,
): string[] {
  if (known.isExtra) return [];
  const possible = decimalOrThrow(after.possible);
  const { rows } = planScores(theirs, { id: known.id, isExtra: false, facts: after }, ours, section, choices);
  const written = new Set(rows.filter(({ outcome }) => isWriting(outcome)).map(({ enrollmentId }) => enrollmentId));
  return [...section.students.values()].flatMap(({ enrollmentId, name }) => {
    const points = section.scores.get(bookKey(known.id, enrollmentId))?.facts.points;
    if (points == null || written.has(enrollmentId)) return [];
    return compareDecimals(decimalOrThrow(points), possible) > 0 ? [`${name} ${points}`] : [];
  });
}

function sameFacts(one: AssignmentFacts, other: AssignmentFacts): boolean {
  return (
    one.name === other.name &&
    compareDecimals(decimalOrThrow(one.possible), decimalOrThrow(other.possible)) === 0 &&
    one.dueOn === other.dueOn &&
    one.categoryId === other.categoryId &&
    String(one.givenTo) === String(other.givenTo)
  );
}
