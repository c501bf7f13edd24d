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
import type { SavedRows } from '#contract/cell-tables';
import { SavePeopleRequest, type PeopleImportReply, type PeopleReply } from '#contract/people';
import { CurrentActor, Upload, type Actor, type SpreadsheetType, May } from '#server/platform';
import { fileOfRows, largestTableMegabytes, uploadedTableOrThrow } from '#server/cell-tables';
import { PeopleService } from './people.service.js';

const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('schools/:schoolId/people')
export class PeopleController {
  constructor(private readonly people: PeopleService) {}

  @Get()
  @May('read-people', { school: 'schoolId' })
  ofSchool(@Param('schoolId', ParseIntPipe) schoolId: number): Promise<PeopleReply> {
    return this.people.ofSchool(schoolId);
  }

  @Put()
  @May('change-people', { school: 'schoolId' })
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SavePeopleRequest,
  ): Promise<PeopleReply & SavedRows> {
    return this.people.save(actor, schoolId, request);
  }

  /** Reads a file and tells what it would change; the changes are saved like typed ones. */
  @Post('import')
  @May('change-people', { school: 'schoolId' })
  @HttpCode(200)
  @Upload(largestTableMegabytes)
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<PeopleImportReply> {
    return this.people.planImport(schoolId, await uploadedTableOrThrow(upload));
  }

  /** The people as a file that can be taken in again. */
  @Get('export')
  @May('read-people', { school: 'schoolId' })
  async export(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    const { table, rows } = await this.people.cellsOf(schoolId);
    return fileOfRows(table, 'People', rows, type);
  }
}
