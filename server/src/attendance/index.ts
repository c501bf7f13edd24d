export { AttendanceModule } from './attendance.module.js';
export { AttendanceRepository } from './attendance.repository.js';
