import { useState } from 'react';
import { attendanceLetters, readAttendance, sitsOn, type AbsenceKind } from '#core/attendance';
import type { Day } from '#core/calendar';
import type { RegisterBody, RegisterReply, RegisterStudentReply } from '#contract/attendance';
import { createDraftStore } from '../shell/draft-store';
import type { CellText } from '../ui/grid/cell-range';

/** A day as it is to be, and the revision that it began from. */
interface DayDraft {
  readonly revision: string;
  readonly absences: Readonly<Record<number, AbsenceKind>>;
}

/** The unsaved registers of a section, by day. */
type RegisterDrafts = Readonly<Record<Day, DayDraft>>;

const none: RegisterDrafts = {};
/** By section. Each day bears its own revision, so the draft as a whole is based on nothing. */
const registerDrafts = createDraftStore<RegisterDrafts, null>('attendance');

/** What was typed into a cell and is no entry of a register. */
export interface RegisterFault {
  readonly enrollmentId: number;
  readonly day: Day;
  readonly text: string;
}

/** The registers of a section's week with what is typed over them. */
export function useRegisterDraft(register: RegisterReply) {
  const { sectionId, days, students, today } = register;
  const drafts = registerDrafts.use(sectionId)?.now ?? none;
  const [faults, setFaults] = useState<readonly RegisterFault[]>([]);
  const savedOf = (day: Day): DayDraft['absences'] =>
    Object.fromEntries(
      students.flatMap(({ enrollmentId, absences }) => (absences[day] ? [[enrollmentId, absences[day]]] : [])),
    );
  const isTaken = (day: Day) =>
    drafts[day] !== undefined || days.some((each) => each.day === day && each.taken !== null);
  const absencesOf = (day: Day) => drafts[day]?.absences ?? savedOf(day);
  const begin = (day: Day): DayDraft =>
    drafts[day] ?? { revision: days.find((each) => each.day === day)!.revision, absences: savedOf(day) };
  const change = (next: RegisterDrafts) => registerDrafts.change(sectionId, null, none, { ...drafts, ...next });
  return {
    drafts,
    faults,
    isTaken,
    absencesOf,
    unsaved: Object.keys(drafts).length,
    /** Drafted days whose register somebody else saved meanwhile. */
    stale: days.filter(({ day, revision }) => drafts[day] !== undefined && drafts[day].revision !== revision),
    textAt(student: RegisterStudentReply, day: Day): string {
      const fault = faults.find((each) => each.enrollmentId === student.enrollmentId && each.day === day);
      if (fault) return fault.text;
      if (!isTaken(day) || !sitsOn(student, day)) return '';
      return attendanceLetters[absencesOf(day)[student.enrollmentId] ?? 'present'];
    },
    edit(texts: readonly CellText[]) {
      const next: Record<Day, DayDraft> = {};
      const wrong: RegisterFault[] = [];
      const touched = new Set<string>();
      for (const [row, column, text] of texts) {
        const student = students[row];
        const day = days[column]?.day;
        if (!student || day === undefined || day > today || !sitsOn(student, day)) continue;
        const { enrollmentId } = student;
        touched.add(`${enrollmentId}/${day}`);
        const mark = readAttendance(text);
        if (mark === undefined) {
          wrong.push({ enrollmentId, day, text });
          continue;
        }
        const { revision, absences } = next[day] ?? begin(day);
        const { [enrollmentId]: _before, ...others } = absences;
        next[day] = { revision, absences: mark === 'present' ? others : { ...others, [enrollmentId]: mark } };
      }
      if (Object.keys(next).length > 0) change(next);
      setFaults([...faults.filter(({ enrollmentId, day }) => !touched.has(`${enrollmentId}/${day}`)), ...wrong]);
    },
    /** Takes a day with everybody present; exceptions come after. */
    allPresent(day: Day) {
      change({ [day]: { revision: begin(day).revision, absences: {} } });
    },
    undo: () => registerDrafts.undo(sectionId),
    discard() {
      registerDrafts.discard(sectionId);
      setFaults([]);
    },
    /** Lets go of what is typed on those days. */
    takeTheirs() {
      const stale = new Set(
        days.filter(({ day, revision }) => drafts[day]?.revision !== revision).map(({ day }) => day),
      );
      const left = (Object.entries(drafts) as [Day, DayDraft][]).filter(([day]) => !stale.has(day));
      registerDrafts.discard(sectionId);
      if (left.length > 0) registerDrafts.change(sectionId, null, none, Object.fromEntries(left));
    },
    /** Lets what is typed stand over what somebody else saved meanwhile. */
    keepMine() {
      const revisions = new Map(days.map(({ day, revision }) => [day, revision]));
      const kept = Object.entries(drafts) as [Day, DayDraft][];
      change(
        Object.fromEntries(
          kept.map(([day, draft]) => [day, { ...draft, revision: revisions.get(day) ?? draft.revision }]),
        ),
      );
    },
    body(): RegisterBody[] {
      return (Object.entries(drafts) as [Day, DayDraft][]).map(([day, { revision, absences }]) => ({
        day,
        revision,
        absences: Object.entries(absences).map(([id, kind]) => ({ enrollmentId: Number(id), kind })),
      }));
    },
    /** After a save: what was typed since stays, upon what is saved now. */
    settle(sent: RegisterDrafts, saved: RegisterReply) {
      const now = registerDrafts.get(sectionId)?.now ?? none;
      const revisions = new Map(saved.days.map(({ day, revision }) => [day, revision]));
      const left = (Object.entries(now) as [Day, DayDraft][]).filter(([day, draft]) => draft !== sent[day]);
      registerDrafts.discard(sectionId);
      const kept = Object.fromEntries(
        left.map(([day, draft]) => [day, { ...draft, revision: revisions.get(day) ?? draft.revision }]),
      );
      if (left.length > 0) registerDrafts.change(sectionId, null, none, kept);
    },
  };
}
