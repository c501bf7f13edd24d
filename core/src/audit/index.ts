export { auditRules } from './audit-rules.js';
export type { AuditRule, Severity } from './audit-rule.js';
export { compareRuns, findingKey, type RunComparison } from './compare-runs.js';
export { findingSentence, runRules, type Finding } from './run-rules.js';
export type { GradeFact, ItemFact, ScaleFact, Snapshot } from './snapshot.js';
