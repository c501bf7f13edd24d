import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, UploadedFile } from '@nestjs/common';
import {
  ImportAttendanceRequest,
  SaveRegistersRequest,
  TakesAttendanceRequest,
  type AttendanceImportReply,
  type AttendanceListReply,
  type ImportedAttendanceReply,
  type RegisterReply,
} from '#contract/attendance';
import { largestTableMegabytes, uploadedTableOrThrow } from '#server/cell-tables';
import { CurrentActor, May, Upload, type Actor } from '#server/platform';
import { AttendanceImportService } from './attendance-import.service.js';
import { AttendanceService } from './attendance.service.js';

@Controller()
export class AttendanceController {
  constructor(
    private readonly attendance: AttendanceService,
    private readonly imports: AttendanceImportService,
  ) {}

  @Get('attendance')
  @May('read-grades')
  list(@CurrentActor() actor: Actor, @Query('period', ParseIntPipe) periodId: number): Promise<AttendanceListReply> {
    return this.attendance.list(actor, periodId);
  }

  /** The week of a section in which a day lies; without one, the last one with classes that has begun. */
  @Get('attendance/:sectionId/:periodId')
  @May('read-grades', { section: 'sectionId' })
  week(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Query('day') day?: string,
  ): Promise<RegisterReply> {
    return this.attendance.week(actor, { sectionId, periodId }, day);
  }

  @Put('attendance/:sectionId/:periodId')
  @May('post-grades', { section: 'sectionId' })
  save(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SaveRegistersRequest,
  ): Promise<RegisterReply> {
    return this.attendance.save(actor, { sectionId, periodId }, request);
  }

  @Put('schools/:schoolId/attendance')
  @May('change-shared-set-up', { school: 'schoolId' })
  @HttpCode(204)
  takes(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() { takesAttendance }: TakesAttendanceRequest,
  ): Promise<void> {
    return this.attendance.takes(actor, schoolId, takesAttendance);
  }

  /** Reads a file and tells what it would change. */
  @Post('schools/:schoolId/attendance/import')
  @May('change-people', { school: 'schoolId' })
  @HttpCode(200)
  @Upload(largestTableMegabytes)
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<AttendanceImportReply> {
    return this.imports.plan({ schoolId, periodId }, await uploadedTableOrThrow(upload));
  }

  /** Takes what a file was seen to say: all of it, or nothing. */
  @Put('schools/:schoolId/attendance/rows')
  @May('change-people', { school: 'schoolId' })
  importRows(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: ImportAttendanceRequest,
  ): Promise<ImportedAttendanceReply> {
    return this.imports.carryOut(actor, { schoolId, periodId }, request);
  }
}
