import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import { SaveSheetRequest, type SaveSheetReply, type SheetListReply, type SheetReply } from '#contract/posting';
import { ItemBody, type ItemEffectReply } from '#contract/report-items';
import { CurrentActor, type Actor, May } from '#server/platform';
import { ItemEffectService } from './item-effect.service.js';
import { SaveSheetService } from './save-sheet.service.js';
import { SheetsService } from './sheets.service.js';

@Controller()
export class PostingController {
  constructor(
    private readonly sheets: SheetsService,
    private readonly saves: SaveSheetService,
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
