export type { SetUpCounts as FirstStepsReply } from '#core/set-up';

/** Where a fault of the set-up is mended. */
export type SetUpPlace = 'scales' | 'calendar' | 'report-items' | 'courses' | 'calculation';

/** One fault of a school's set-up, with the way to it. */
export interface SetUpFaultReply {
  /** Stays the same from one check to the next while the fault does. */
  readonly key: string;
  readonly place: SetUpPlace;
  readonly code: string;
  readonly severity: 'blocks' | 'warns';
  readonly says: string;
  /** What to choose there, as a part of the address: "?item=3". */
  readonly search: string;
}

export interface SetUpReply {
  readonly faults: readonly SetUpFaultReply[];
  /** What was looked at, for the sentence that says that all is well. */
  readonly checked: {
    readonly scales: number;
    readonly periods: number;
    readonly items: number;
    readonly courses: number;
    readonly policies: number;
  };
}
