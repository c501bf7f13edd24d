import { toast } from 'sonner';
import { ProblemError } from './api';

/** Reports what no field on the page can show. */
export function showProblem(error: unknown): void {
  if (error instanceof ProblemError) toast.error(error.problem.title, { description: error.problem.detail });
  else throw error;
}
