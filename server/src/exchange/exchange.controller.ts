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
} from '@nestjs/common';
import {
  AcceptExchangeRequest,
  ExchangeRowsQuery,
  ExportQuery,
  largestZipMegabytes,
  type ExchangeImportReply,
  type ExchangeRowsReply,
  type ExchangeSummaryReply,
} from '#contract/exchange';
import { CurrentActor, Upload, uploadedOrThrow, type Actor, May } from '#server/platform';
import { ExchangeService } from './exchange.service.js';

@Controller('exchange')
export class ExchangeController {
  constructor(private readonly exchange: ExchangeService) {}

  @Get('export')
  @May('exchange')
  async export(@CurrentActor() actor: Actor, @Query() { version }: ExportQuery): Promise<StreamableFile> {
    const disposition = `attachment; filename="wombat-oneroster-${version}.zip"`;
    return new StreamableFile(await this.exchange.export(actor, version), { type: 'application/zip', disposition });
  }

  @Get('imports')
  @May('exchange')
  list(): Promise<ExchangeSummaryReply[]> {
    return this.exchange.list();
  }

  @Post('imports')
  @May('exchange')
  @Upload(largestZipMegabytes)
  read(
    @CurrentActor() actor: Actor,
    @UploadedFile() upload: Express.Multer.File | undefined,
  ): Promise<ExchangeImportReply> {
    const { file, name } = uploadedOrThrow(upload, 'a zip of CSV files');
    return this.exchange.read(actor, name, file.buffer);
  }

  @Get('imports/:id')
  @May('exchange')
  byId(@Param('id', ParseIntPipe) id: number): Promise<ExchangeImportReply> {
    return this.exchange.byId(id);
  }

  @Get('imports/:id/rows')
  @May('exchange')
  rows(@Param('id', ParseIntPipe) id: number, @Query() query: ExchangeRowsQuery): Promise<ExchangeRowsReply> {
    return this.exchange.rows(id, query);
  }

  @Post('imports/:id/accept')
  @May('exchange')
  @HttpCode(200)
  accept(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { previewId }: AcceptExchangeRequest,
  ): Promise<ExchangeImportReply> {
    return this.exchange.accept(actor, id, previewId);
  }

  @Delete('imports/:id')
  @May('exchange')
  @HttpCode(204)
  discard(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.exchange.discard(actor, id);
  }
}
