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
import { sectionTable } from '#core/sections';
import {
  SaveSectionsRequest,
  type SavedSectionsReply,
  type SectionsImportReply,
  type SectionsReply,
} from '#contract/sections';
import { fileOfRows, largestTableMegabytes, uploadedTableOrThrow } from '#server/cell-tables';
import { CurrentActor, Upload, type Actor, type SpreadsheetType, May } from '#server/platform';
import { SectionsService } from './sections.service.js';

const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('schools/:schoolId/sections')
export class SectionsController {
  constructor(private readonly sections: SectionsService) {}

  @Get()
  @May('read-set-up', { school: 'schoolId', period: 'query.period' })
  ofYear(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<SectionsReply> {
    return this.sections.ofYear(schoolId, periodId);
  }

  @Put()
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: SaveSectionsRequest,
  ): Promise<SavedSectionsReply> {
    return this.sections.save(actor, schoolId, periodId, request);
  }

  /** Reads a file and tells what it would change; the changes are saved like typed ones. */
  @Post('import')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  @HttpCode(200)
  @Upload(largestTableMegabytes)
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<SectionsImportReply> {
    return this.sections.planImport(schoolId, periodId, await uploadedTableOrThrow(upload));
  }

  /** The sections as a file that can be taken in again. */
  @Get('export')
  @May('read-set-up', { school: 'schoolId', period: 'query.period' })
  async export(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    const { directory, rows } = await this.sections.cellsOf(schoolId, periodId);
    return fileOfRows(sectionTable(directory), 'Sections', rows, type);
  }
}
