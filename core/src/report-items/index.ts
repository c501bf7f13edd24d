export { coverage, coverageChange } from './coverage.js';
export { ruleMatches, type Rule, type RuleChoices } from './rule.js';
