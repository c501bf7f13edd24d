import { isOfEvidence, scoreFlags } from '#core/calculation';
import type { CategoryReply, PolicyBody } from '#contract/calculation';
import { effectWords, flagWords, methodWords } from '../words';

/** What a policy says about one thing, in words short enough to stand beside another's. */
export interface PolicyFact {
  readonly name: string;
  readonly says: string;
}

/** Everything that a policy says, in an order that is the same for every policy of a school. */
export function policyFacts(body: PolicyBody, categories: readonly CategoryReply[]): PolicyFact[] {
  const { method, cap, newestShare, levels, flags } = body;
  return [
    { name: 'Method', says: methodWords[method] },
    ...categories.map(({ id, name }) => ({ name, says: shareWords(body, id) })),
    ...scoreFlags.map((flag) => ({ name: `A score that is ${flagWords[flag]}`, says: effectWords[flags[flag]] })),
    { name: 'Limit on the overall percentage', says: cap === null ? 'none' : `${cap} %` },
    { name: 'The newest counts', says: method === 'decaying' ? `${newestShare} %` : '–' },
    {
      name: 'Levels',
      says:
        levels && isOfEvidence(method) ? `${levels.meets} meets, ${levels.exceeds} exceeds, of ${levels.most}` : '–',
    },
  ];
}

function shareWords({ categories, method }: PolicyBody, categoryId: number): string {
  const share = categories.find((each) => each.categoryId === categoryId);
  if (!share) return 'not in it';
  const { weight, dropLowest, cap } = share;
  const parts = [
    method === 'totalPoints' ? 'by points' : weight,
    dropLowest > 0 && !isOfEvidence(method) && `drops ${dropLowest}`,
    cap !== null && `at most ${cap} %`,
  ];
  return parts.filter(Boolean).join(', ');
}
