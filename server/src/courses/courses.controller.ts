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
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { courseFields, courseHeadings } from '#core/courses';
import {
  SaveCourseDefaultsRequest,
  SaveCoursesRequest,
  type CourseImportReply,
  type CoursesReply,
} from '#contract/courses';
import {
  Allow,
  CurrentActor,
  readTableOrThrow,
  Refusal,
  registrars,
  spreadsheetTypes,
  writeSpreadsheet,
  type Actor,
  type SpreadsheetType,
} from '#server/platform';
import { CoursesService } from './courses.service.js';

const limits = { fileSize: 10 * 1024 * 1024, files: 1 };
const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('schools/:schoolId')
@Allow(registrars)
export class CoursesController {
  constructor(private readonly courses: CoursesService) {}

  @Get('courses')
  ofSchool(@Param('schoolId', ParseIntPipe) schoolId: number): Promise<CoursesReply> {
    return this.courses.ofSchool(schoolId);
  }

  @Put('courses')
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SaveCoursesRequest,
  ): Promise<CoursesReply> {
    return this.courses.save(actor, schoolId, request);
  }

  @Put('course-defaults')
  saveDefaults(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SaveCourseDefaultsRequest,
  ): Promise<CoursesReply> {
    return this.courses.saveDefaults(actor, schoolId, request);
  }

  /** Reads a file and tells what it would change; the changes are saved like typed ones. */
  @Post('courses/import')
  @HttpCode(200)
  @UseInterceptors(FileInterceptor('file', { limits }))
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<CourseImportReply> {
    if (!file) throw new Refusal('fields-wrong', {}, [{ field: 'file', detail: 'choose a CSV or XLSX file' }]);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, 200);
    const { table } = await readTableOrThrow(file.buffer, name);
    return this.courses.planImport(schoolId, name, table.rows);
  }

  /** The courses as a file that can be taken in again. */
  @Get('courses/export')
  async export(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    const { courses } = await this.courses.ofSchool(schoolId);
    const rows = courses.map(({ cells }) => courseFields.map((field) => cells[field]));
    const bytes = await writeSpreadsheet(type, 'Courses', [
      courseFields.map((field) => courseHeadings[field]),
      ...rows,
    ]);
    return new StreamableFile(bytes, {
      type: spreadsheetTypes[type],
      disposition: `attachment; filename="courses.${type}"`,
    });
  }
}
