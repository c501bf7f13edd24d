import { toast } from 'sonner';
import { ProblemError } from './api';

/** Reports what no field on the page can show; that the session ended is told by the way to sign in again. */
export function showProblem(error: unknown): void {
  if (error instanceof ProblemError && error.problem.code === 'not-signed-in') return;
  if (error instanceof ProblemError) toast.error(error.problem.title, { description: error.problem.detail });
  else throw error;
}
