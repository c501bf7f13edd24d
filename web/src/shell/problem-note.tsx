import type { ReactNode } from 'react';
import { Note } from '../ui/panel';
import { ProblemError } from './api';

/** Why a save was refused, with each field or row that was; nothing where there is no refusal, or one without rows. */
export function ProblemNote({ error, children }: { error: Error | null; children?: (code: string) => ReactNode }) {
  const problem = error instanceof ProblemError ? error.problem : undefined;
  if (!problem || problem.errors.length === 0) return null;
  return (
    <div role="alert">
      <Note tone="blocks" title={problem.title}>
        <p>{problem.detail}</p>
        {problem.errors.map(({ field, detail }) => (
          <p key={field + detail}>{detail}</p>
        ))}
        {children?.(problem.code)}
      </Note>
    </div>
  );
}
