export { auditRules } from './audit-rules.js';
export { lastDateNeeded } from './rules/last-date-needed.js';
export type { AuditRule, RuleFinding, Severity } from './audit-rule.js';
export { itemFactOf, type JudgedItem } from './item-fact.js';
export { compareRuns, findingKey } from './compare-runs.js';
export { waiverState, type Waiver, type WaiverState } from './waivers.js';
export { runRules, type Finding } from './run-rules.js';
export { bareGrade, type GradeFact, type ItemFact, type Snapshot } from './snapshot.js';
