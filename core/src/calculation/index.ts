export { bestDrop } from './best-drop.js';
export type { BookColumns } from './book-columns.js';
export { calculateExact, type ExactGrade, type ExactValue } from './calculate-exact.js';
export { calculateGrades, type CalculatedColumns, type GradePrecision } from './calculate-grades.js';
export { checkPolicy, sumOfCategoryWeights, type PolicyFault, type PolicyFaultCode } from './check-policy.js';
export {
  columnsOf,
  explainGrade,
  type BookScore,
  type CategoryWorkings,
  type GradeWorkings,
  type ScoreWorkings,
} from './explain-grade.js';
export { effectOfPolicy, type PolicyEffect } from './effect-of-policy.js';
export { effectOfValues, type ComparedGrade } from './effect-of-values.js';
export {
  flagEffects,
  isOfEvidence,
  methods,
  scoreFlags,
  type CalculationPolicy,
  type CategoryShare,
  type FlagEffect,
  type LevelRule,
  type Method,
  type ScoreFlag,
} from './policy.js';
export { plainPolicy } from './plain-policy.js';
export { nearnessOf, policyInForce, type PolicyPlace } from './policy-in-force.js';
export { noSlot, preparePolicy, slotOf, type PreparedPolicy } from './prepare-policy.js';
export { mostPoints, readPoints, readScore, type ScoreFaultCode } from './read-score.js';
export type { Standing } from './standing.js';
export type { Treatment } from './treat-score.js';
