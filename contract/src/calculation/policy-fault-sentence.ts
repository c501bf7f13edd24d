import type { PolicyFault, PolicyFaultCode, ScoreFaultCode } from '#core/calculation';
import { formatMessage } from '#contract/messages';

const sentences: Readonly<Record<PolicyFaultCode, string>> = {
  'weights-not-100': 'The weights add up to {total}, not 100; each counts as its share of {total}.',
  'weights-all-zero': 'No category has a weight, so nothing would count. Give at least one a weight above 0.',
  'weight-negative': '{category} has the weight {weight}; a weight is 0 or more.',
  'category-unknown': 'Category {category} does not exist here.',
  'category-twice': '{category} is listed twice here.',
  'category-without-weight': '{category} has no weight, so its scores do not count.',
  'category-inactive': '{category} is switched off but has a weight.',
  'drop-negative': '{category} drops {drop} scores; 0 or more would be right.',
  'cap-not-positive': 'A limit of {cap} % lets nothing through; empty means no limit.',
  'newest-share-out-of-range': 'The newest score counts {share} %; above 0 and at most 100 would be right.',
  'levels-missing': 'This method reads levels; say which level is the highest.',
  'levels-out-of-order': 'To meet at {meets} and to exceed at {exceeds} does not fit a highest level of {most}.',
  'evidence-not-positive': '{evidence} pieces of evidence are too few; at least 1.',
};

/** What is wrong with a policy, in one sentence. */
export function policyFaultSentence({ code, data }: Pick<PolicyFault, 'code' | 'data'>): string {
  return formatMessage(sentences[code], data);
}

/** What is wrong with a typed score, and what would be right. */
export function scoreFaultSentence(code: ScoreFaultCode, possible: string): string {
  switch (code) {
    case 'score-unreadable':
      return 'Points such as 8.5, or the first letter of missing, late, incomplete, exempt, absent or collected.';
    case 'score-negative':
      return 'Points are 0 or more.';
    case 'score-digits':
      return 'Points have at most two decimals.';
    case 'score-too-high':
      return 'A score is at most 9999.99 points.';
    case 'score-above':
      return `It is out of ${possible}. Points beyond that belong in an assignment that is marked extra.`;
  }
}
