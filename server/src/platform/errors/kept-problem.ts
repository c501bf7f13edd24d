import type { ProblemCode, ProblemData } from '#contract/problems';
import { Refusal } from './refusal.js';

/** Why long work came to nothing, as it is kept with the thing until somebody looks. */
export interface KeptProblem {
  readonly code: ProblemCode;
  readonly data: object;
}

/** What is kept of an error: why it was refused, or that there was a fault of ours, which the server's log has. */
export function problemToKeep(error: unknown): KeptProblem {
  return error instanceof Refusal ? { code: error.code, data: error.data } : { code: 'work-broken-off', data: {} };
}

/** What was kept, as the refusal that it was; null where nothing was. */
export function keptRefusal(problem: KeptProblem | null): Refusal | null {
  return problem && new Refusal(problem.code, problem.data as ProblemData<ProblemCode>);
}
