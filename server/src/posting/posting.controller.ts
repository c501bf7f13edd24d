import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import {
  HandStandardsRequest,
  PostingAnswerRequest,
  PostingRequestRequest,
  ReceiptsQuery,
  SaveSheetRequest,
  SaveStandardsRequest,
  SaveStockCommentsRequest,
  SignOffRequest,
  SignStandardsRequest,
  type DayReceiptsReply,
  type SaveSheetReply,
  type SheetListReply,
  type SheetReply,
  type SheetWordReply,
  type SaveStandardsReply,
  type StandardsReply,
  type StockCommentsReply,
} from '#contract/posting';
import { ItemBody, type ItemEffectReply } from '#contract/report-items';
import { CurrentActor, type Actor, May } from '#server/platform';
import { ItemEffectService } from './item-effect.service.js';
import { DayReceiptsService } from './day-receipts.service.js';
import { PostingRequestsService } from './posting-requests.service.js';
import { SaveSheetService } from './save-sheet.service.js';
import { SignOffService } from './sign-off.service.js';
import { StockCommentsService } from './stock-comments.service.js';
import { SheetsService } from './sheets.service.js';

@Controller()
export class PostingController {
  constructor(
    private readonly sheets: SheetsService,
    private readonly saves: SaveSheetService,
    private readonly signOffs: SignOffService,
    private readonly requests: PostingRequestsService,
    private readonly receipts: DayReceiptsService,
    private readonly stock: StockCommentsService,
    private readonly itemEffects: ItemEffectService,
  ) {}

  @Get('grade-sheets')
  @May('read-grades')
  list(@CurrentActor() actor: Actor, @Query('period', ParseIntPipe) periodId: number): Promise<SheetListReply[]> {
    return this.sheets.list(actor, periodId);
  }

  @Get('grade-sheets/:sectionId/:itemId/:periodId')
  @May('read-grades', { section: 'sectionId' })
  open(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
  ): Promise<SheetReply> {
    return this.sheets.open(actor, { sectionId, itemId, periodId });
  }

  @Put('grade-sheets/:sectionId/:itemId/:periodId')
  @May('post-grades', { section: 'sectionId' })
  save(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SaveSheetRequest,
  ): Promise<SaveSheetReply> {
    return this.saves.save(actor, { sectionId, itemId, periodId }, request);
  }

  @Get('standards-sheets/:sectionId/:periodId')
  @May('read-grades', { section: 'sectionId' })
  standards(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
  ): Promise<StandardsReply> {
    return this.sheets.standards(actor, { sectionId, periodId });
  }

  @Put('standards-sheets/:sectionId/:periodId')
  @May('post-grades', { section: 'sectionId' })
  async saveStandards(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SaveStandardsRequest,
  ): Promise<SaveStandardsReply> {
    return { sheets: await this.saves.saveAll(actor, { sectionId, periodId }, request) };
  }

  @Put('standards-sheets/:sectionId/:periodId/sign-off')
  @May('post-grades', { section: 'sectionId' })
  @HttpCode(204)
  signStandards(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SignStandardsRequest,
  ): Promise<void> {
    return this.signOffs.signAll(actor, { sectionId, periodId }, request);
  }

  @Post('standards-sheets/:sectionId/:periodId/requests')
  @May('post-grades', { section: 'sectionId' })
  @HttpCode(204)
  askStandards(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: HandStandardsRequest,
  ): Promise<void> {
    return this.requests.askAll(actor, { sectionId, periodId }, request);
  }

  @Put('grade-sheets/:sectionId/:itemId/:periodId/sign-off')
  @May('post-grades', { section: 'sectionId' })
  signOff(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SignOffRequest,
  ): Promise<SheetWordReply> {
    return this.signOffs.sign(actor, { sectionId, itemId, periodId }, request);
  }

  @Delete('grade-sheets/:sectionId/:itemId/:periodId/sign-off')
  @May('post-grades', { section: 'sectionId' })
  takeBack(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
  ): Promise<SheetWordReply> {
    return this.signOffs.takeBack(actor, { sectionId, itemId, periodId });
  }

  @Post('grade-sheets/:sectionId/:itemId/:periodId/requests')
  @May('post-grades', { section: 'sectionId' })
  @HttpCode(204)
  ask(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: PostingRequestRequest,
  ): Promise<void> {
    return this.requests.ask(actor, { sectionId, itemId, periodId }, request);
  }

  @Put('posting-requests/:requestId')
  @May('post-grades', { 'posting-request': 'requestId' })
  @HttpCode(204)
  answer(
    @CurrentActor() actor: Actor,
    @Param('requestId', ParseIntPipe) requestId: number,
    @Body() request: PostingAnswerRequest,
  ): Promise<void> {
    return this.requests.answer(actor, requestId, request);
  }

  /** What whoever asks posted on a day, and what was posted on their behalf. */
  @Get('receipts')
  @May('use-own-account')
  receiptsOfDay(@CurrentActor() actor: Actor, @Query() { day }: ReceiptsQuery): Promise<DayReceiptsReply> {
    return this.receipts.ofDay(actor, day);
  }

  @Get('stock-comments')
  @May('see-school', { school: 'query.school' })
  stockComments(@Query('school', ParseIntPipe) schoolId: number): Promise<StockCommentsReply> {
    return this.stock.ofSchool(schoolId);
  }

  @Put('stock-comments')
  @May('change-set-up', { school: 'query.school' })
  saveStockComments(
    @CurrentActor() actor: Actor,
    @Query('school', ParseIntPipe) schoolId: number,
    @Body() request: SaveStockCommentsRequest,
  ): Promise<StockCommentsReply> {
    return this.stock.save(actor, schoolId, request);
  }

  @Post('report-items/:itemId/preview')
  @May('change-set-up', { 'report-item': 'itemId', period: 'query.period' })
  @HttpCode(200)
  itemEffect(
    @Param('itemId', ParseIntPipe) itemId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() item: ItemBody,
  ): Promise<ItemEffectReply> {
    return this.itemEffects.preview(itemId, periodId, item);
  }
}
