import type { ProblemCode } from '#contract/problems';

/** One field or row of a request that is wrong. */
export interface FieldFault {
  /** Path into the request, such as "bands.3.lowest". */
  readonly field: string;
  readonly detail: string;
}

/**
 * What a person asked for and cannot have: a conflict, a policy, a thing that is not there. It becomes a problem reply;
 * everything else that is thrown is a bug.
 */
export class Refusal extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly data: Readonly<Record<string, string | number>> = {},
    readonly fields: readonly FieldFault[] = [],
  ) {
    super(code);
    this.name = 'Refusal';
  }
}
