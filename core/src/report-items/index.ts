export { coverage, coverageChange, type Cover, type CourseCoverage, type CoverageChange } from './coverage.js';
export { ruleMatches, type Rule, type RuleChoices } from './rule.js';
