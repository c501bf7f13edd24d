import { formatMessage } from '#contract/messages';
import { problemCodes, type ProblemCode, type ProblemData } from './problem-codes.js';

/** The body of an error reply, `application/problem+json` (RFC 9457), with our code and the fields concerned. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly code: ProblemCode;
  readonly errors: readonly { readonly field: string; readonly detail: string }[];
}

/**
 * The problem of a code, with its {words} filled in.
 * @example problemOf('not-found', { what: 'section', id: 7 }, []).detail // 'There is no section with number 7.'
 */
export function problemOf<Code extends ProblemCode>(
  code: Code,
  data: ProblemData<Code>,
  errors: Problem['errors'],
): Problem {
  const [status, title, detail] = problemCodes[code];
  const filled = (message: string) => formatMessage(message, data);
  return {
    type: `urn:wombat:problem:${code}`,
    title: filled(title),
    status,
    detail: filled(detail).trim(),
    code,
    errors,
  };
}
