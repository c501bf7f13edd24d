import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import type { PolicyEffectReply } from '#contract/calculation';
import {
  DecideMatchesRequest,
  RestoreWeightsRequest,
  TakeWeightsRequest,
  WeightsRequest,
  type DecidedReply,
  type MatchesReply,
  type WeightsReply,
  type WeightsTakenReply,
} from '#contract/matching';
import { CurrentActor, type Actor, May } from '#server/platform';
import { MatchesService } from './matches.service.js';
import { WeightsService } from './weights.service.js';

@Controller('platforms')
export class MatchingController {
  constructor(
    private readonly matches: MatchesService,
    private readonly weights: WeightsService,
  ) {}

  @Get(':id/matches')
  @May('read-map', { platform: 'id' })
  of(@Param('id', ParseIntPipe) id: number): Promise<MatchesReply> {
    return this.matches.of(id);
  }

  @Post(':id/decisions')
  @May('map', { platform: 'id' })
  @HttpCode(200)
  decide(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { decisions }: DecideMatchesRequest,
  ): Promise<DecidedReply> {
    return this.matches.decide(actor, id, decisions);
  }

  @Get(':id/weights')
  @May('read-map', { platform: 'id', period: 'query.period' })
  weightsOf(
    @Param('id', ParseIntPipe) id: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<WeightsReply> {
    return this.weights.of(id, periodId);
  }

  @Post(':id/weights/effect')
  @May('map', { platform: 'id', period: 'body.periodId' })
  @HttpCode(200)
  weightsEffect(@Param('id', ParseIntPipe) id: number, @Body() request: WeightsRequest): Promise<PolicyEffectReply> {
    return this.weights.effect(id, request);
  }

  @Post(':id/weights/take')
  @May('map', { platform: 'id', period: 'body.periodId' })
  @HttpCode(200)
  takeWeights(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: TakeWeightsRequest,
  ): Promise<WeightsTakenReply> {
    return this.weights.take(actor, id, request);
  }

  @Post(':id/weights/restore')
  @May('map', { platform: 'id', period: 'body.periodId' })
  @HttpCode(200)
  restoreWeights(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: RestoreWeightsRequest,
  ): Promise<WeightsReply> {
    return this.weights.restore(actor, id, request);
  }
}
