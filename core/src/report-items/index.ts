export { coverage, coverageChange } from './coverage.js';
export type { Rule, RuleChoices } from './rule.js';
