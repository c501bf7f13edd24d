export { foldName } from './name-forms.js';
export { nameSimilarity } from './name-similarity.js';
export { compareNames, type NameReason } from './compare-names.js';
export {
  proposeTarget,
  type EarlierChoice,
  type Proposal,
  type ProposalReason,
  type Proposed,
  type Target,
} from './propose-target.js';
export { type OurSection, type SectionProposal, type SectionReason } from './propose-section.js';
export { proposeSections, type ProposedAmongClasses } from './propose-sections.js';
export {
  indexPeople,
  matchPerson,
  type OurPerson,
  type PeopleIndex,
  type PersonMatch,
  type TheirPerson,
} from './match-person.js';
export { sureConfidence, type MatchDecision, type MatchState } from './match-state.js';
