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
  UploadedFile,
  type StreamableFile,
} from '@nestjs/common';
import { courseTable } from '#core/courses';
import type { SavedRows } from '#contract/cell-tables';
import {
  SaveCourseDefaultsRequest,
  SaveCoursesRequest,
  type CourseImportReply,
  type CoursesReply,
} from '#contract/courses';
import { CurrentActor, Upload, type Actor, type SpreadsheetType, May } from '#server/platform';
import { fileOfRows, largestTableMegabytes, uploadedTableOrThrow } from '#server/cell-tables';
import { CoursesService } from './courses.service.js';

const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('schools/:schoolId')
export class CoursesController {
  constructor(private readonly courses: CoursesService) {}

  @Get('courses')
  @May('read-set-up', { school: 'schoolId', period: 'query.period' })
  ofSchool(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<CoursesReply> {
    return this.courses.ofSchool(schoolId, periodId);
  }

  @Put('courses')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: SaveCoursesRequest,
  ): Promise<CoursesReply & SavedRows> {
    return this.courses.save(actor, schoolId, periodId, request);
  }

  @Put('course-defaults')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  saveDefaults(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: SaveCourseDefaultsRequest,
  ): Promise<CoursesReply> {
    return this.courses.saveDefaults(actor, schoolId, periodId, request);
  }

  /** Reads a file and tells what it would change; the changes are saved like typed ones. */
  @Post('courses/import')
  @May('change-set-up', { school: 'schoolId' })
  @HttpCode(200)
  @Upload(largestTableMegabytes)
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<CourseImportReply> {
    return this.courses.planImport(schoolId, await uploadedTableOrThrow(upload));
  }

  /** The courses as a file that can be taken in again. */
  @Get('courses/export')
  @May('read-set-up', { school: 'schoolId' })
  async export(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    return fileOfRows(courseTable, 'Courses', await this.courses.cellsOf(schoolId), type);
  }
}
