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
} from '@nestjs/common';
import { personFields, personHeadings } from '#core/people';
import { SavePeopleRequest, type PeopleImportReply, type PeopleReply } from '#contract/people';
import {
  Allow,
  CurrentActor,
  readTableOrThrow,
  registrars,
  spreadsheetTypes,
  Upload,
  uploadedOrThrow,
  writeSpreadsheet,
  type Actor,
  type SpreadsheetType,
} from '#server/platform';
import { PeopleService } from './people.service.js';

const largestMegabytes = 10;
const types = { csv: 'csv', xlsx: 'xlsx' } as const;

@Controller('schools/:schoolId/people')
@Allow(registrars)
export class PeopleController {
  constructor(private readonly people: PeopleService) {}

  @Get()
  ofSchool(@Param('schoolId', ParseIntPipe) schoolId: number): Promise<PeopleReply> {
    return this.people.ofSchool(schoolId);
  }

  @Put()
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SavePeopleRequest,
  ): Promise<PeopleReply> {
    return this.people.save(actor, schoolId, request);
  }

  /** Reads a file and tells what it would change; the changes are saved like typed ones. */
  @Post('import')
  @HttpCode(200)
  @Upload(largestMegabytes)
  async planImport(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<PeopleImportReply> {
    const { file, name } = uploadedOrThrow(upload, 'a CSV or XLSX file');
    const { table } = await readTableOrThrow(file.buffer, name);
    return this.people.planImport(schoolId, name, table.rows);
  }

  /** The people as a file that can be taken in again. */
  @Get('export')
  async export(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('type', new ParseEnumPipe(types)) type: SpreadsheetType,
  ): Promise<StreamableFile> {
    const rows = (await this.people.cellsOf(schoolId)).map((cells) => personFields.map((field) => cells[field]));
    const bytes = writeSpreadsheet(type, 'People', [personFields.map((field) => personHeadings[field]), ...rows]);
    return new StreamableFile(bytes, {
      type: spreadsheetTypes[type],
      disposition: `attachment; filename="people.${type}"`,
    });
  }
}
