import { compareNames, type NameReason } from './compare-names.js';

/** A name of theirs that is to be joined, with its weight where the platform states one. */
export interface TheirName {
  readonly name: string;
  /** Percents, as often as they occur; empty where weights play no part. */
  readonly weights: readonly number[];
}

/** What it could be joined to. */
export interface Target {
  readonly key: string;
  readonly name: string;
  readonly weight: number | null;
}

/** The same name was joined to this elsewhere, so many times. */
export interface EarlierChoice {
  readonly key: string;
  readonly times: number;
}

export type ProposalReason =
  | NameReason
  | { readonly kind: 'weight'; readonly weight: number }
  | { readonly kind: 'otherWeight'; readonly theirs: number; readonly ours: number }
  | { readonly kind: 'earlier'; readonly times: number }
  | { readonly kind: 'onlyWeight'; readonly weight: number };

export interface Proposal {
  readonly key: string;
  /** 0 to 100. */
  readonly confidence: number;
  readonly reasons: readonly ProposalReason[];
}

/** A proposal, the reason why there is none to be taken by itself, or nothing that comes near. */
export type Proposed =
  | { readonly state: 'proposed'; readonly best: Proposal }
  /** Several targets are about equally likely, or earlier choices differ: somebody must decide. */
  | { readonly state: 'conflicting'; readonly between: readonly Proposal[] }
  | { readonly state: 'unmatched' };

/** Two candidates nearer to each other than this, in points of confidence, are a conflict. */
const clearLead = 8;
const forEqualWeight = 4;
const forOtherWeight = 6;
const byEarlierChoice = 97;
const byWeightAlone = 55;
/** Only what is written the same is quite sure. */
const mostUnlessSame = 99;

/**
 * Which target a name of theirs most likely means, with the reasons. What was chosen for the same name before says
 * more than spelling; a weight that agrees confirms; a weight alone is a weak hint. Conflicts are never settled here.
 */
export function proposeTarget(
  theirs: TheirName,
  targets: readonly Target[],
  earlier: readonly EarlierChoice[],
): Proposed {
  const proposals = targets
    .map((target) => proposalFor(theirs, target, targets, earlier))
    .filter((each) => each !== undefined)
    .toSorted((a, b) => b.confidence - a.confidence);
  const [best, second] = proposals;
  if (!best) return { state: 'unmatched' };
  const isSure = best.reasons[0]?.kind === 'same' && earlier.every(({ key }) => key === best.key);
  const between = proposals.filter(({ confidence }) => best.confidence - confidence < clearLead);
  return second && between.length > 1 && !isSure ? { state: 'conflicting', between } : { state: 'proposed', best };
}

function proposalFor(
  theirs: TheirName,
  target: Target,
  targets: readonly Target[],
  earlier: readonly EarlierChoice[],
): Proposal | undefined {
  const likeness = compareNames(theirs.name, target.name);
  const times = earlier.find(({ key }) => key === target.key)?.times ?? 0;
  const weight = weightReason(theirs, target);
  if (!likeness && times === 0) return byWeight(weight, target, targets);
  const reasons: ProposalReason[] = [];
  if (likeness) reasons.push(likeness.reason);
  if (times > 0) reasons.push({ kind: 'earlier', times });
  if (weight) reasons.push(weight);
  const base = Math.max(likeness?.confidence ?? 0, times > 0 ? byEarlierChoice : 0);
  const isSame = likeness?.reason.kind === 'same';
  const change = weight?.kind === 'weight' ? forEqualWeight : weight ? -forOtherWeight : 0;
  const confidence = isSame ? base : Math.min(mostUnlessSame, base + change);
  return { key: target.key, confidence, reasons };
}

/** Nothing but the weight speaks for it; that says something only where no other target has that weight. */
function byWeight(
  reason: ProposalReason | undefined,
  target: Target,
  targets: readonly Target[],
): Proposal | undefined {
  if (reason?.kind !== 'weight') return undefined;
  if (targets.filter(({ weight }) => weight === target.weight).length > 1) return undefined;
  return {
    key: target.key,
    confidence: byWeightAlone,
    reasons: [{ kind: 'onlyWeight', weight: reason.weight }],
  };
}

/** Weights say something only where all sections agree about theirs. */
function weightReason({ weights }: TheirName, { weight }: Target): ProposalReason | undefined {
  const [one, ...others] = new Set(weights);
  if (one === undefined || others.length > 0 || weight === null) return undefined;
  return one === weight ? { kind: 'weight', weight } : { kind: 'otherWeight', theirs: one, ours: weight };
}
