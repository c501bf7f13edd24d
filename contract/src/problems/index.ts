export { problemCodes, type ProblemCode, type ProblemData } from './problem-codes.js';
export { problemOf, type Problem } from './problem.js';
