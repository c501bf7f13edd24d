import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Query,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import {
  AcceptExchangeRequest,
  ExchangeRowsQuery,
  ExportQuery,
  largestZipMegabytes,
  type ExchangeImportReply,
  type ExchangeRowsReply,
  type ExchangeSummaryReply,
} from '#contract/exchange';
import { Allow, CurrentActor, Refusal, registrars, type Actor } from '#server/platform';
import { ExchangeService } from './exchange.service.js';

const limits = { fileSize: largestZipMegabytes * 1024 * 1024, files: 1 };

@Controller('exchange')
@Allow(registrars)
export class ExchangeController {
  constructor(private readonly exchange: ExchangeService) {}

  @Get('export')
  async export(@CurrentActor() actor: Actor, @Query() { version }: ExportQuery): Promise<StreamableFile> {
    const disposition = `attachment; filename="wombat-oneroster-${version}.zip"`;
    return new StreamableFile(await this.exchange.export(actor, version), { type: 'application/zip', disposition });
  }

  @Get('imports')
  list(): Promise<ExchangeSummaryReply[]> {
    return this.exchange.list();
  }

  @Post('imports')
  @UseInterceptors(FileInterceptor('file', { limits }))
  read(
    @CurrentActor() actor: Actor,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<ExchangeImportReply> {
    if (!file) throw new Refusal('fields-wrong', {}, [{ field: 'file', detail: 'choose a zip of CSV files' }]);
    const name = Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, 200);
    return this.exchange.read(actor, name, file.buffer);
  }

  @Get('imports/:id')
  byId(@Param('id', ParseIntPipe) id: number): Promise<ExchangeImportReply> {
    return this.exchange.byId(id);
  }

  @Get('imports/:id/rows')
  rows(@Param('id', ParseIntPipe) id: number, @Query() query: ExchangeRowsQuery): Promise<ExchangeRowsReply> {
    return this.exchange.rows(id, query);
  }

  @Post('imports/:id/accept')
  @HttpCode(200)
  accept(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { previewId }: AcceptExchangeRequest,
  ): Promise<ExchangeImportReply> {
    return this.exchange.accept(actor, id, previewId);
  }

  @Delete('imports/:id')
  @HttpCode(204)
  discard(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.exchange.discard(actor, id);
  }
}
