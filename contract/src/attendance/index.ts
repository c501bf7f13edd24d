export {
  ImportAttendanceRequest,
  RegisterBody,
  SaveRegistersRequest,
  TakesAttendanceRequest,
  type AttendanceImportReply,
  type AttendanceListReply,
  type AttendanceSectionReply,
  type ImportedAttendanceReply,
  type RegisterDayReply,
  type RegisterReply,
  type RegisterStudentReply,
} from './attendance-messages.js';
