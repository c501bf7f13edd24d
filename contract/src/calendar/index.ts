import type { Day, LatePosters, PeriodKind, WindowState } from '#core/calendar';

export { calendarFaultSentence } from './calendar-fault-sentence.js';
export {
  BreakBody,
  CopyYearBody,
  CopyYearsRequest,
  PeriodBody,
  SaveCalendarRequest,
  WindowBody,
  type CalendarReply,
} from './calendar-messages.js';

export interface SchoolReply {
  readonly id: number;
  readonly name: string;
  readonly shortName: string;
  /** Whether its sections take attendance by day. */
  readonly takesAttendance: boolean;
}

export interface WindowReply {
  /** ISO instants. */
  readonly opensAt: string;
  readonly closesAt: string;
  readonly graceUntil: string | null;
  readonly latePosters: LatePosters;
  readonly state: WindowState;
}

export interface PeriodReply {
  readonly id: number;
  readonly parentId: number | null;
  readonly kind: PeriodKind;
  readonly name: string;
  readonly startsOn: Day;
  readonly endsOn: Day;
  /** The item that is posted in it and how far it is; null where nothing is posted. */
  readonly posting: PeriodPostingReply | null;
}

export interface PeriodPostingReply {
  readonly itemId: number;
  readonly itemName: string;
  readonly sections: number;
  /** Sections in which every expected grade is posted. */
  readonly sectionsComplete: number;
  readonly window: WindowReply | null;
  readonly sealedAt: string | null;
  /** The newest audit and what it found; null when there was none. */
  readonly audit: { readonly at: string; readonly findings: number } | null;
}

export interface TermLineReply {
  readonly school: SchoolReply;
  /** ISO instant, by the server's clock. */
  readonly now: string;
  readonly periods: readonly PeriodReply[];
  /** The period to begin with: the one whose window is open, else the one that today lies in. */
  readonly suggestedPeriodId: number;
}
