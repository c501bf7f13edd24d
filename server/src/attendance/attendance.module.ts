import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { PeriodViewModule } from '#server/period-view';
import { SectionsModule } from '#server/sections';
import { AttendanceController } from './attendance.controller.js';
import { AttendanceImportService } from './attendance-import.service.js';
import { AttendanceRepository } from './attendance.repository.js';
import { AttendanceService } from './attendance.service.js';
import { RegisterThing } from './register.thing.js';

@Module({
  imports: [CalendarModule, ChangesModule, PeriodViewModule, SectionsModule],
  controllers: [AttendanceController],
  providers: [AttendanceImportService, AttendanceRepository, AttendanceService, RegisterThing],
  exports: [AttendanceRepository],
})
export class AttendanceModule {}
