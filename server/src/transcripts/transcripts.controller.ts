import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseEnumPipe,
  ParseIntPipe,
  Post,
  Put,
  Query,
  StreamableFile,
} from '@nestjs/common';
import type { ReadingReply } from '#contract/changes';
import {
  SaveGpaPolicyRequest,
  SealRequest,
  type GpaPolicyReply,
  type ReadinessReply,
  type StudentReply,
  type StudentRowReply,
  type TranscriptReply,
} from '#contract/transcripts';
import { Readings, rowsOfReadings } from '#server/changes';
import {
  CurrentActor,
  May,
  spreadsheetTypes,
  writeSpreadsheet,
  type Actor,
  type SpreadsheetType,
} from '#server/platform';
import { GpaPolicyService } from './gpa-policy.service.js';
import { SealService } from './seal.service.js';
import { StudentListService } from './student-list.service.js';
import { TranscriptService } from './transcript.service.js';

const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller()
export class TranscriptsController {
  constructor(
    private readonly seals: SealService,
    private readonly transcripts: TranscriptService,
    private readonly gpa: GpaPolicyService,
    private readonly studentList: StudentListService,
    private readonly readings: Readings,
  ) {}

  @Get('seals/readiness')
  @May('read-transcripts', { period: 'query.period' })
  readiness(@Query('period', ParseIntPipe) periodId: number): Promise<ReadinessReply> {
    return this.seals.readiness(periodId);
  }

  @Post('seals')
  @May('seal', { period: 'body.periodId' })
  @HttpCode(200)
  seal(@CurrentActor() actor: Actor, @Body() { periodId }: SealRequest): Promise<ReadinessReply> {
    return this.seals.seal(actor, periodId);
  }

  @Get('gpa-policy')
  @May('read-set-up')
  gpaPolicy(): Promise<GpaPolicyReply> {
    return this.gpa.read();
  }

  @Put('gpa-policy')
  @May('change-shared-set-up')
  saveGpaPolicy(@CurrentActor() actor: Actor, @Body() request: SaveGpaPolicyRequest): Promise<GpaPolicyReply> {
    return this.gpa.save(actor, request);
  }

  @Get('students')
  @May('read-transcripts', { school: 'query.school' })
  students(@Query('school', ParseIntPipe) schoolId: number, @Query('text') text = ''): Promise<StudentReply[]> {
    return this.transcripts.students(schoolId, text);
  }

  @Get('student-list')
  @May('read-transcripts', { school: 'query.school', period: 'query.period' })
  list(
    @Query('school', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Query('text') text = '',
  ): Promise<StudentRowReply[]> {
    return this.studentList.of(schoolId, periodId, text);
  }

  @Get('students/:studentId/transcript')
  @May('read-transcripts', { person: 'studentId' })
  transcript(
    @CurrentActor() actor: Actor,
    @Param('studentId', ParseIntPipe) studentId: number,
  ): Promise<TranscriptReply> {
    return this.transcripts.readBy(actor, studentId);
  }

  /** Who read a student's record. */
  @Get('students/:studentId/readings')
  @May('see-readers', { person: 'studentId' })
  readingsOf(@Param('studentId', ParseIntPipe) studentId: number): Promise<ReadingReply[]> {
    return this.readings.of(studentId);
  }

  @Get('students/:studentId/readings/export')
  @May('see-readers', { person: 'studentId' })
  async exportReadings(
    @Param('studentId', ParseIntPipe) studentId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    const rows = rowsOfReadings(await this.readings.of(studentId));
    const bytes = writeSpreadsheet(type, 'Readings', rows);
    const disposition = `attachment; filename="readings-${studentId}.${type}"`;
    return new StreamableFile(bytes, { type: spreadsheetTypes[type], disposition });
  }
}
