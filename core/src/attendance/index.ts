export {
  absenceKinds,
  attendanceLetters,
  isPresent,
  readAttendance,
  type AbsenceKind,
  type AttendanceMark,
} from './absence.js';
export {
  attendanceFields,
  attendanceHeadings,
  attendanceTable,
  entryOfCells,
  seatKey,
  type AttendanceCells,
  type AttendanceDirectory,
  type AttendanceField,
} from './attendance-cells.js';
export { attendanceIn, type AttendanceSummary } from './attendance-in.js';
