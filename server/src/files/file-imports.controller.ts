import { rm } from 'node:fs/promises';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Put,
  Query,
  UploadedFile,
} from '@nestjs/common';
import {
  AcceptImportRequest,
  ChooseColumnsRequest,
  FileRowsQuery,
  ReadAgainRequest,
  largestFileMegabytes,
  type FileImportReply,
  type FileImportSummaryReply,
  type FileRowsReply,
} from '#contract/files';
import { CurrentActor, privateFolder, Upload, uploadedOrThrow, type Actor, May } from '#server/platform';
import { FileImportsService } from './file-imports.service.js';

/** Files wait here until they stand in the database. */
export const waitingRoom = privateFolder('uploads');

@Controller('file-imports')
export class FileImportsController {
  constructor(private readonly imports: FileImportsService) {}

  @Get()
  @May('read-map', { period: 'query.period' })
  ofPeriod(@Query('period', ParseIntPipe) periodId: number): Promise<FileImportSummaryReply[]> {
    return this.imports.ofPeriod(periodId);
  }

  @Post()
  @May('map', { period: 'query.period' })
  @Upload(largestFileMegabytes, waitingRoom)
  async read(
    @CurrentActor() actor: Actor,
    @Query('period', ParseIntPipe) periodId: number,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<FileImportReply> {
    const { file, name } = uploadedOrThrow(upload, 'a CSV or XLSX file');
    try {
      return await this.imports.read(actor, periodId, name, file.path);
    } finally {
      await rm(file.path, { force: true });
    }
  }

  @Get(':id')
  @May('read-map', { 'file-import': 'id' })
  byId(@Param('id', ParseIntPipe) id: number): Promise<FileImportReply> {
    return this.imports.byId(id);
  }

  @Get(':id/rows')
  @May('read-map', { 'file-import': 'id' })
  rows(@Param('id', ParseIntPipe) id: number, @Query() query: FileRowsQuery): Promise<FileRowsReply> {
    return this.imports.rows(id, query);
  }

  @Put(':id/columns')
  @May('map', { 'file-import': 'id' })
  choose(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: ChooseColumnsRequest,
  ): Promise<FileImportReply> {
    return this.imports.choose(actor, id, request);
  }

  @Post(':id/read-again')
  @May('map', { 'file-import': 'id' })
  @HttpCode(200)
  readAgain(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: ReadAgainRequest,
  ): Promise<FileImportReply> {
    return this.imports.readAgain(actor, id, request);
  }

  @Post(':id/accept')
  @May('map', { 'file-import': 'id' })
  @HttpCode(200)
  accept(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { planNumber }: AcceptImportRequest,
  ): Promise<FileImportReply> {
    return this.imports.accept(actor, id, planNumber);
  }

  @Post(':id/undo')
  @May('map', { 'file-import': 'id' })
  @HttpCode(200)
  undo(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<FileImportReply> {
    return this.imports.undo(actor, id);
  }

  @Delete(':id')
  @May('map', { 'file-import': 'id' })
  @HttpCode(204)
  discard(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.imports.discard(actor, id);
  }
}
