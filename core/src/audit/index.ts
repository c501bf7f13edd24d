export { auditRules } from './audit-rules.js';
export type { Severity } from './audit-rule.js';
export { compareRuns, findingKey } from './compare-runs.js';
export { findingSentence, runRules, type Finding } from './run-rules.js';
export type { GradeFact, ItemFact, Snapshot } from './snapshot.js';
