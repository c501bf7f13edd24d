import { canonicalJson } from '#core/changes';
import { checkPolicy, nearnessOf, policyInForce, type PolicyFault, type PolicyPlace } from '#core/calculation';
import {
  policyFaultSentence,
  policyOfBody,
  type CalculationReply,
  type CategoryReply,
  type PolicyBody,
  type PolicyReply,
} from '#contract/calculation';
import { createDraftStore } from '../../shell/draft-store';

/** A policy being changed, or made for a place that has none; null before the first step of a new one. */
export interface PolicyDraft {
  readonly place: PolicyPlace;
  readonly policy: PolicyBody;
}

/** By school and place, each based on the revision of the saved policy, empty for a place without one. */
export const policyDrafts = createDraftStore<PolicyDraft | null, string>('policies');

/** A policy as the screen works with it: saved, drafted, or both. */
export interface PolicyView {
  /** The key of its draft. */
  readonly key: string;
  readonly place: PolicyPlace;
  /** Undefined for a place that has no saved policy. */
  readonly saved: PolicyReply | undefined;
  readonly body: PolicyBody;
  readonly isDraft: boolean;
}

/** A place as changes name it. */
export function policyKey(schoolId: number, { department, sectionId, periodId }: PolicyPlace): string {
  return [schoolId, encodeURIComponent(department ?? ''), sectionId ?? '', periodId ?? ''].join('/');
}

export function draftKey(schoolId: number, { department, sectionId, periodId }: PolicyPlace): string {
  const where =
    sectionId !== null ? `section ${sectionId}` : department !== null ? `department ${department}` : 'school';
  return `${schoolId} ${where}${periodId === null ? '' : ` in ${periodId}`}`;
}

/** The policies of a school as they are drafted, the widest first; new ones that are not saved yet among them. */
export function policyViews(
  schoolId: number,
  policies: readonly PolicyReply[],
  drafts: ReturnType<typeof policyDrafts.useAll>,
): PolicyView[] {
  const saved = policies.map(({ department, sectionId, periodId, ...policy }): PolicyView => {
    const place = { department, sectionId, periodId };
    const key = draftKey(schoolId, place);
    const draft = drafts[key]?.now;
    const reply = { ...policy, ...place };
    // A draft that is what is saved is none.
    const isDraft = draft !== undefined && canonicalJson(draft?.policy ?? null) !== canonicalJson(policy.policy);
    return { key, place, saved: reply, body: draft?.policy ?? policy.policy, isDraft };
  });
  const added = Object.entries(drafts).flatMap(([key, { now }]): PolicyView[] => {
    const isNew = now !== null && key === draftKey(schoolId, now.place) && !saved.some((view) => view.key === key);
    return isNew ? [{ key, place: now.place, saved: undefined, body: now.policy, isDraft: true }] : [];
  });
  return [...saved, ...added].toSorted((a, b) => nearnessOf(a.place) - nearnessOf(b.place));
}

/** "The school", "Sea and Shore", "Knots 2, in Quarter 2". */
export function placeName(
  { department, sectionId, periodId }: PolicyPlace,
  { books }: Pick<CalculationReply, 'books'>,
  periods: readonly { readonly id: number; readonly name: string }[],
): string {
  const section = books.find((book) => book.sectionId === sectionId)?.section ?? `section ${sectionId}`;
  const where = sectionId !== null ? section : (department ?? 'The school');
  const period = periods.find(({ id }) => id === periodId)?.name;
  return period ? `${where}, in ${period}` : where;
}

/** What stands in the way of a policy, and what is to be known of it. */
export function mattersOf(body: PolicyBody, categories: readonly CategoryReply[]): (PolicyFault & { says: string })[] {
  return isReadable(body)
    ? checkPolicy(policyOfBody(body), categories).map((fault) => ({ ...fault, says: policyFaultSentence(fault) }))
    : [];
}

const percentText = /^\d{1,3}(\.\d{1,2})?$/;

/** What is wrong with a number of a policy as it is typed; undefined where nothing is. */
export function percentFault(text: string | null): string | undefined {
  return text === null || percentText.test(text) ? undefined : 'a number from 0 to 999 with at most two decimals';
}

/** Whether every number of a draft can be read, so that it can be calculated with. */
export function isReadable({ categories, cap, newestShare, levels }: PolicyBody): boolean {
  const texts = [
    ...categories.flatMap((share) => [share.weight, share.cap]),
    cap,
    newestShare,
    ...(levels ? [levels.most, levels.meets, levels.exceeds] : []),
  ];
  return texts.every((text) => percentFault(text) === undefined);
}

/** The policy that holds for a place while it has none of its own. */
export function inheritedBy(
  place: PolicyPlace,
  { policies, books }: Pick<CalculationReply, 'policies' | 'books'>,
  inPeriodId: number,
): PolicyBody | undefined {
  const book = books.find(({ sectionId }) => sectionId === place.sectionId);
  const department = place.department ?? book?.department ?? '';
  const wider = policies.filter((policy) => nearnessOf(policy) < nearnessOf(place));
  return policyInForce(wider, { id: place.sectionId ?? 0, department }, place.periodId ?? inPeriodId)?.policy;
}
