export { auditRules } from './audit-rules.js';
export { lastDateNeeded } from './rules/last-date-needed.js';
export type { AuditRule, RuleFinding, Severity } from './audit-rule.js';
export { compareRuns, findingKey } from './compare-runs.js';
export { runRules, type Finding } from './run-rules.js';
export type { GradeFact, ItemFact, Snapshot } from './snapshot.js';
