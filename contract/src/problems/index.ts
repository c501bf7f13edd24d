export { problemCodes, type ProblemCode } from './problem-codes.js';
export { problemOf, type Problem } from './problem.js';
