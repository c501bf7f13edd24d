export { foldName } from './name-forms.js';
export {
  proposeTarget,
  type EarlierChoice,
  type Proposal,
  type ProposalReason,
  type Proposed,
} from './propose-target.js';
export type { SectionProposal, SectionReason } from './propose-section.js';
export { proposeSections } from './propose-sections.js';
export {
  indexPeople,
  matchPeople,
  type OurPerson,
  type PersonConflict,
  type PersonMatch,
  type TheirPerson,
} from './match-person.js';
export { byNeed, isOpen, sureConfidence, type MatchDecision, type MatchState } from './match-state.js';
export { compareWeights, type WeightState } from './compare-weights.js';
