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
import { enrollmentTable } from '#core/sections';
import {
  SaveEnrollmentsRequest,
  type SavedEnrollmentsReply,
  type EnrollmentsImportReply,
  type EnrollmentsReply,
} from '#contract/sections';
import { fileOfRows, largestTableMegabytes, uploadedTableOrThrow } from '#server/cell-tables';
import { CurrentActor, Upload, type Actor, type SpreadsheetType, May } from '#server/platform';
import { EnrollmentsService } from './enrollments.service.js';

const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('schools/:schoolId/enrollments')
export class EnrollmentsController {
  constructor(private readonly enrollments: EnrollmentsService) {}

  @Get()
  @May('read-people', { school: 'schoolId', period: 'query.period' })
  of(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Query('section', new ParseIntPipe({ optional: true })) sectionId: number | undefined,
  ): Promise<EnrollmentsReply> {
    return this.enrollments.of({ schoolId, periodId, sectionId: sectionId ?? null });
  }

  @Put()
  @May('change-people', { school: 'schoolId', period: 'query.period' })
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Query('section', new ParseIntPipe({ optional: true })) sectionId: number | undefined,
    @Body() request: SaveEnrollmentsRequest,
  ): Promise<SavedEnrollmentsReply> {
    return this.enrollments.save(actor, { schoolId, periodId, sectionId: sectionId ?? null }, request);
  }

  /** Reads a file and tells what it would change; the changes are saved like typed ones. */
  @Post('import')
  @May('change-people', { school: 'schoolId', period: 'query.period' })
  @HttpCode(200)
  @Upload(largestTableMegabytes)
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Query('section', new ParseIntPipe({ optional: true })) sectionId: number | undefined,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<EnrollmentsImportReply> {
    return this.enrollments.planImport(
      { schoolId, periodId, sectionId: sectionId ?? null },
      await uploadedTableOrThrow(upload),
    );
  }

  /** The enrollments as a file that can be taken in again. */
  @Get('export')
  @May('read-people', { school: 'schoolId', period: 'query.period' })
  async export(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Query('section', new ParseIntPipe({ optional: true })) sectionId: number | undefined,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    const { directory, rows } = await this.enrollments.cellsOf({ schoolId, periodId, sectionId: sectionId ?? null });
    return fileOfRows(enrollmentTable(directory), 'Enrollments', rows, type);
  }
}
