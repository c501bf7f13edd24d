import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import { SaveSheetRequest, type SaveSheetReply, type SheetListReply, type SheetReply } from '#contract/posting';
import { ItemBody, type ItemEffectReply } from '#contract/report-items';
import { Allow, CurrentActor, everyone, registrars, type Actor } from '#server/platform';
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
  @Allow(everyone)
  list(@CurrentActor() actor: Actor, @Query('period', ParseIntPipe) periodId: number): Promise<SheetListReply[]> {
    return this.sheets.list(actor, periodId);
  }

  @Get('grade-sheets/:sectionId/:itemId/:periodId')
  @Allow(everyone)
  open(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
  ): Promise<SheetReply> {
    return this.sheets.open(actor, { sectionId, itemId, periodId });
  }

  @Put('grade-sheets/:sectionId/:itemId/:periodId')
  @Allow(everyone)
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
  @HttpCode(200)
  @Allow(registrars)
  itemEffect(
    @Param('itemId', ParseIntPipe) itemId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() item: ItemBody,
  ): Promise<ItemEffectReply> {
    return this.itemEffects.preview(itemId, periodId, item);
  }
}
