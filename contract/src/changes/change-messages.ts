import type { Difference } from '#core/changes';

/** One change with all that it touched. */
export interface ChangeReply {
  readonly id: number;
  readonly at: string;
  readonly actor: string;
  readonly action: string;
  readonly why: string | null;
  /** The change that this one undid. */
  readonly undoes: number | null;
  /** Whether a later change undid it. */
  readonly isUndone: boolean;
  /** Whether the one who asks may undo it. */
  readonly canUndo: boolean;
  /** The first of them. */
  readonly things: readonly ChangedThingReply[];
  /** How many things more it touched. */
  readonly moreThings: number;
}

export interface ChangedThingReply {
  /** Kind and number, such as "report-item 102"; by this its history is asked for. */
  readonly thing: string;
  readonly called: string;
  readonly fields: readonly Difference[];
}

export interface UndoReply {
  /** The change that the undo is. */
  readonly id: number;
  /** What it did, such as "undo: save the codes". */
  readonly action: string;
}

/** That somebody read a record. */
export interface ReadingReply {
  readonly id: number;
  readonly at: string;
  readonly actor: string;
  /** "transcript", "history". */
  readonly part: string;
}
