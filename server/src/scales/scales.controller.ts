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
import { CurrentActor, type Actor, May } from '#server/platform';
import { PlacementsService } from './placements.service.js';
import { ScalePreviewService } from './scale-preview.service.js';
import { ScalesService } from './scales.service.js';

@Controller()
export class ScalesController {
  constructor(
    private readonly scales: ScalesService,
    private readonly placements: PlacementsService,
    private readonly previews: ScalePreviewService,
  ) {}

  @Get('scales')
  @May('read-set-up', { period: 'query.period' })
  inPeriod(@Query('period', ParseIntPipe) periodId: number): Promise<ScalesReply> {
    return this.scales.inPeriod(periodId);
  }

  @Post('schools/:schoolId/scales')
  @May('change-set-up', { school: 'schoolId', period: 'body.fromPeriodId' })
  add(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: NewScaleRequest,
  ): Promise<ScalesReply> {
    return this.scales.add(actor, schoolId, request);
  }

  @Put('scales/:scaleId')
  @May('change-set-up', { scale: 'scaleId', period: 'body.fromPeriodId' })
  save(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: SaveScaleRequest,
  ): Promise<ScalesReply> {
    return this.scales.save(actor, scaleId, request);
  }

  @Put('scales/:scaleId/facts')
  @May('change-set-up', { scale: 'scaleId', period: 'query.period' })
  changeFacts(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: ScaleFactsRequest,
  ): Promise<ScalesReply> {
    return this.scales.changeFacts(actor, scaleId, periodId, request);
  }

  @Delete('scales/:scaleId')
  @May('change-set-up', { scale: 'scaleId', period: 'query.period' })
  remove(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<ScalesReply> {
    return this.scales.remove(actor, scaleId, periodId);
  }

  @Post('scales/:scaleId/preview')
  @May('change-set-up', { scale: 'scaleId', period: 'body.periodId' })
  @HttpCode(200)
  preview(
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: PreviewScaleRequest,
  ): Promise<ScaleEffectReply> {
    return this.previews.ofDraft(scaleId, request);
  }

  @Post('scales/:scaleId/tie/preview')
  @May('change-set-up', { scale: 'scaleId', period: 'body.periodId' })
  @HttpCode(200)
  previewTie(
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: PreviewTieRequest,
  ): Promise<ScaleEffectReply> {
    return this.previews.ofTie(scaleId, request);
  }

  @Post('schools/:schoolId/scale-placements/preview')
  @May('change-set-up', { school: 'schoolId', period: 'body.fromPeriodId' })
  @HttpCode(200)
  previewPlacement(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: PlaceScaleRequest,
  ): Promise<ScaleEffectReply> {
    return this.previews.ofPlacement(schoolId, request);
  }

  @Put('schools/:schoolId/scale-placements')
  @May('change-set-up', { school: 'schoolId', period: 'body.fromPeriodId' })
  place(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: PlaceScaleRequest,
  ): Promise<ScalesReply> {
    return this.placements.place(actor, schoolId, request);
  }
}
