import { checkChoice, countOutcomes, isLeftOut, noOutcomes } from '#core/files';
import type { ProblemCode, ProblemData } from '#contract/problems';
import type { ChooseColumnsRequest, FilePlanReply, FileRowsQuery } from '#contract/files';
import { Refusal, type FieldFault } from '#server/platform';
import type { ReportedItem } from '#server/period-view';
import type { KeptFile } from './file-imports.repository.js';

/** Which columns hold what, as it was chosen last. */
export function choiceOfFile({ idColumn, sectionId, sectionColumn, grades }: KeptFile) {
  return { idColumn, sectionId, sectionColumn, grades };
}

/** What the file would bring; null before it is planned. */
export function planOf({ plan, planNumber }: KeptFile): FilePlanReply | null {
  if (!plan) return null;
  return { ...plan, number: planNumber, counts: { ...noOutcomes(), ...plan.counts } };
}

/** How many rows a filter lets through. */
export function linesOf(plan: FilePlanReply, show: FileRowsQuery['show']): number {
  if (show === undefined) return countOutcomes(plan, () => true);
  return show === 'left-out' ? countOutcomes(plan, isLeftOut) : plan.counts[show];
}

/** What is wrong with a choice of columns and sections. */
export function faultsOf(request: ChooseColumnsRequest, columns: number, items: readonly ReportedItem[]): FieldFault[] {
  const sectionIds = new Set(items.flatMap(({ sections }) => sections.map(({ id }) => id)));
  const isKnown = (id: unknown) => typeof id === 'number' && sectionIds.has(id);
  const detail = 'a section that reports in the period';
  return [
    ...checkChoice(request, columns, new Set(items.map(({ item }) => item.id))),
    ...(request.sectionId === null || isKnown(request.sectionId) ? [] : [{ field: 'sectionId', detail }]),
    ...Object.entries(request.namedSections).flatMap(([name, id]) =>
      isKnown(id) ? [] : [{ field: `namedSections.${name}`, detail }],
    ),
  ];
}

/** Why the file was refused when it was read or planned; null where it was not. */
export function problemAsRefusal({ problem }: KeptFile): Refusal | null {
  if (!problem) return null;
  const { code, data } = problem as { code: ProblemCode; data: ProblemData<ProblemCode> };
  return new Refusal(code, data);
}
