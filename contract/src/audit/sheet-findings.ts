import type { Severity } from '#core/audit';

/** A finding as whoever posts reads it: what stands in the way, or what they were told of; never one that was let stand. */
export interface SheetFindingReply {
  readonly key: string;
  readonly severity: Severity;
  /** Null for one about all students. */
  readonly enrollmentId: number | null;
  /** Null for one about the section, whatever it reports. */
  readonly itemId: number | null;
  readonly sentence: string;
  /** When the teacher was told of it; null for not yet. */
  readonly toldAt: string | null;
  /**
   * What became of it since: saved, and not there any more; saved, and still so; saved, and only another audit knows. Null where
   * nobody saved the grade.
   */
  readonly since: 'gone' | 'still' | 'saved' | null;
}

/** What the last audit found on the sheets of a section. */
export interface SheetFindingsReply {
  /** When it looked; null where the period was never audited. */
  readonly at: string | null;
  readonly findings: readonly SheetFindingReply[];
}

/** How many there are on a sheet; sheets without any are left out. */
export interface SheetFindingCountReply {
  readonly sectionId: number;
  /** Null for what is about the section, whatever it reports. */
  readonly itemId: number | null;
  readonly findings: number;
}
