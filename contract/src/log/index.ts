export interface LogEntryReply {
  readonly id: number;
  readonly at: string;
  readonly actor: string;
  readonly action: string;
  readonly thing: string;
  readonly before: unknown;
  readonly after: unknown;
  readonly hash: string;
}

export interface LogCheckReply {
  readonly entries: number;
  readonly isWhole: boolean;
  /** The first entry that does not fit the chain. */
  readonly faultAt: number | null;
}
