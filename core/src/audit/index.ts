export { auditRules, gradeRules, ruleById, shownBySheet } from './audit-rules.js';
export { lastDateNeeded } from './rules/last-date-needed.js';
export type { AuditRule, FindingPlace, RuleFinding, RuleThreshold, Scope, SetUpPlace, Severity } from './audit-rule.js';
export { whatBroke, type CertificateBreak } from './certificate.js';
export { itemFactOf, type JudgedItem } from './item-fact.js';
export { compareRuns, findingKey, placeOfKey } from './compare-runs.js';
export { waiverState, type Waiver, type WaiverState } from './waivers.js';
export { leastStudents } from './least-students.js';
export {
  effectIn,
  inForceFor,
  isSameInForce,
  noExceptions,
  ruleEffects,
  ruleInForce,
  type RuleEffect,
  type RuleExceptions,
  type RuleInForce,
  type RuleSettings,
} from './rule-settings.js';
export { auditByParts, outcomesOf, seenInPart, type PartSeen } from './audit-by-parts.js';
export { foreseen } from './foreseen.js';
export { recheck, rulesOfOneSection, type Rechecked } from './recheck.js';
export { runRules, type Finding, type RulesInForce } from './run-rules.js';
export {
  bareGrade,
  noSections,
  type AssignmentFact,
  type GradeFact,
  type ItemFact,
  type ScaleFact,
  type SealedLine,
  type UnmatchedGroupFact,
  type SectionFact,
  type SheetFact,
  type Snapshot,
  type StrayGrade,
} from './snapshot.js';
