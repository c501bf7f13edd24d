export { absenceKinds, attendanceLetters, readAttendance, type AbsenceKind } from './absence.js';
export {
  attendanceHeadings,
  attendanceTable,
  entryOfCells,
  seatKey,
  type AttendanceCells,
  type AttendanceDirectory,
  type AttendanceField,
} from './attendance-cells.js';
export { attendanceIn, type AttendanceSummary } from './attendance-in.js';
export { sitsOn } from './sits-on.js';
