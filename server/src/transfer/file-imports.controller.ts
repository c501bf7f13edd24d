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
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import {
  AcceptImportRequest,
  ChooseColumnsRequest,
  largestFileMegabytes,
  type FileImportReply,
  type FileImportSummaryReply,
} from '#contract/transfer';
import { Allow, CurrentActor, Refusal, registrars, type Actor } from '#server/platform';
import { FileImportsService } from './file-imports.service.js';

const limits = { fileSize: largestFileMegabytes * 1024 * 1024, files: 1 };

@Controller('file-imports')
@Allow(registrars)
export class FileImportsController {
  constructor(private readonly imports: FileImportsService) {}

  @Get()
  ofPeriod(@Query('period', ParseIntPipe) periodId: number): Promise<FileImportSummaryReply[]> {
    return this.imports.ofPeriod(periodId);
  }

  @Post()
  @UseInterceptors(FileInterceptor('file', { limits }))
  read(
    @CurrentActor() actor: Actor,
    @Query('period', ParseIntPipe) periodId: number,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<FileImportReply> {
    if (!file) throw new Refusal('fields-wrong', {}, [{ field: 'file', detail: 'choose a CSV or XLSX file' }]);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, 200);
    return this.imports.read(actor, periodId, name, file.buffer);
  }

  @Get(':id')
  byId(@Param('id', ParseIntPipe) id: number): Promise<FileImportReply> {
    return this.imports.byId(id);
  }

  @Put(':id/columns')
  choose(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: ChooseColumnsRequest,
  ): Promise<FileImportReply> {
    return this.imports.choose(actor, id, request);
  }

  @Post(':id/accept')
  @HttpCode(200)
  accept(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { previewId }: AcceptImportRequest,
  ): Promise<FileImportReply> {
    return this.imports.accept(actor, id, previewId);
  }

  @Post(':id/undo')
  @HttpCode(200)
  undo(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<FileImportReply> {
    return this.imports.undo(actor, id);
  }

  @Delete(':id')
  @HttpCode(204)
  discard(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.imports.discard(actor, id);
  }
}
