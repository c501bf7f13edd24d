export {
  ImportAttendanceRequest,
  RegisterBody,
  SaveRegistersRequest,
  TakesAttendanceRequest,
  type AttendanceImportReply,
  type AttendanceListReply,
  type AttendanceSectionReply,
  type ImportedAttendanceReply,
  type RegisterReply,
  type RegisterStudentReply,
} from './attendance-messages.js';
