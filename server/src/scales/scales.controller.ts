import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import {
  NewScaleRequest,
  PlaceScaleRequest,
  PreviewScaleRequest,
  PreviewTieRequest,
  SaveScaleRequest,
  ScaleFactsRequest,
  type ScaleEffectReply,
  type ScalesReply,
} from '#contract/scales';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { PlacementsService } from './placements.service.js';
import { ScalePreviewService } from './scale-preview.service.js';
import { ScalesService } from './scales.service.js';

@Controller()
@Allow(registrars)
export class ScalesController {
  constructor(
    private readonly scales: ScalesService,
    private readonly placements: PlacementsService,
    private readonly previews: ScalePreviewService,
  ) {}

  @Get('scales')
  inPeriod(@Query('period', ParseIntPipe) periodId: number): Promise<ScalesReply> {
    return this.scales.inPeriod(periodId);
  }

  @Post('schools/:schoolId/scales')
  add(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: NewScaleRequest,
  ): Promise<ScalesReply> {
    return this.scales.add(actor, schoolId, request);
  }

  @Put('scales/:scaleId')
  save(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: SaveScaleRequest,
  ): Promise<ScalesReply> {
    return this.scales.save(actor, scaleId, request);
  }

  @Put('scales/:scaleId/facts')
  changeFacts(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: ScaleFactsRequest,
  ): Promise<ScalesReply> {
    return this.scales.changeFacts(actor, scaleId, periodId, request);
  }

  @Delete('scales/:scaleId')
  remove(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<ScalesReply> {
    return this.scales.remove(actor, scaleId, periodId);
  }

  @Post('scales/:scaleId/preview')
  @HttpCode(200)
  preview(
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: PreviewScaleRequest,
  ): Promise<ScaleEffectReply> {
    return this.previews.ofDraft(scaleId, request);
  }

  @Post('scales/:scaleId/tie/preview')
  @HttpCode(200)
  previewTie(
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: PreviewTieRequest,
  ): Promise<ScaleEffectReply> {
    return this.previews.ofTie(scaleId, request);
  }

  @Post('schools/:schoolId/scale-placements/preview')
  @HttpCode(200)
  previewPlacement(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: PlaceScaleRequest,
  ): Promise<ScaleEffectReply> {
    return this.previews.ofPlacement(schoolId, request);
  }

  @Put('schools/:schoolId/scale-placements')
  place(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: PlaceScaleRequest,
  ): Promise<ScalesReply> {
    return this.placements.place(actor, schoolId, request);
  }
}
