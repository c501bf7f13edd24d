import type { ProblemCode, ProblemData } from '#contract/problems';

/** One field or row of a request that is wrong. */
export interface FieldFault {
  /** Path into the request, such as "bands.3.lowest". */
  readonly field: string;
  readonly detail: string;
}

/** The words of the problem, where it has some, and the fields that are wrong, where there are some. */
type RefusalFacts<Code extends ProblemCode> = keyof ProblemData<Code> extends never
  ? [data?: ProblemData<Code>, fields?: readonly FieldFault[]]
  : [data: ProblemData<Code>, fields?: readonly FieldFault[]];

/**
 * What a person asked for and cannot have: a conflict, a policy, a thing that is not there. It becomes a problem reply;
 * everything else that is thrown is a bug.
 */
export class Refusal<Code extends ProblemCode = ProblemCode> extends Error {
  readonly data: ProblemData<Code>;
  readonly fields: readonly FieldFault[];

  constructor(
    readonly code: Code,
    ...[data = {} as ProblemData<Code>, fields = []]: RefusalFacts<Code>
  ) {
    super(code);
    this.name = 'Refusal';
    this.data = data;
    this.fields = fields;
  }
}
