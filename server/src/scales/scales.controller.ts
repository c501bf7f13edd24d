import { Body, Controller, Get, Param, ParseIntPipe, Put, Query } from '@nestjs/common';
import { SaveScaleRequest, type ScaleReply } from '#contract/scales';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { ScalesService } from './scales.service.js';

@Controller('scales')
@Allow(registrars)
export class ScalesController {
  constructor(private readonly scales: ScalesService) {}

  @Get()
  inPeriod(@Query('period', ParseIntPipe) periodId: number): Promise<ScaleReply[]> {
    return this.scales.inPeriod(periodId);
  }

  @Put(':scaleId')
  save(
    @CurrentActor() actor: Actor,
    @Param('scaleId', ParseIntPipe) scaleId: number,
    @Body() request: SaveScaleRequest,
  ): Promise<ScaleReply> {
    return this.scales.save(actor, scaleId, request);
  }
}
