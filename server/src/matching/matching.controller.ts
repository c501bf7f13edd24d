import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import type { PolicyEffectReply } from '#contract/calculation';
import {
  ConnectPlatformRequest,
  DecideMatchesRequest,
  RestoreWeightsRequest,
  TakeWeightsRequest,
  WeightsRequest,
  type DecidedReply,
  type MatchesReply,
  type PlatformReply,
  type WeightsReply,
  type WeightsTakenReply,
} from '#contract/matching';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { MatchesService } from './matches.service.js';
import { PlatformsService } from './platforms.service.js';
import { WeightsService } from './weights.service.js';

@Controller('platforms')
@Allow(registrars)
export class MatchingController {
  constructor(
    private readonly platforms: PlatformsService,
    private readonly matches: MatchesService,
    private readonly weights: WeightsService,
  ) {}

  @Get()
  ofSchool(@Query('school', ParseIntPipe) schoolId: number): Promise<PlatformReply[]> {
    return this.platforms.ofSchool(schoolId);
  }

  @Post()
  connect(@CurrentActor() actor: Actor, @Body() request: ConnectPlatformRequest): Promise<PlatformReply> {
    return this.platforms.connect(actor, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.platforms.remove(actor, id);
  }

  @Post(':id/read')
  @HttpCode(202)
  read(@Param('id', ParseIntPipe) id: number): Promise<PlatformReply> {
    return this.platforms.read(id);
  }

  @Post(':id/cancel')
  @HttpCode(200)
  cancel(@Param('id', ParseIntPipe) id: number): Promise<PlatformReply> {
    return this.platforms.cancel(id);
  }

  @Get(':id/matches')
  of(@Param('id', ParseIntPipe) id: number): Promise<MatchesReply> {
    return this.matches.of(id);
  }

  @Post(':id/decisions')
  @HttpCode(200)
  decide(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { decisions }: DecideMatchesRequest,
  ): Promise<DecidedReply> {
    return this.matches.decide(actor, id, decisions);
  }

  @Get(':id/weights')
  weightsOf(
    @Param('id', ParseIntPipe) id: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<WeightsReply> {
    return this.weights.of(id, periodId);
  }

  @Post(':id/weights/effect')
  @HttpCode(200)
  weightsEffect(@Param('id', ParseIntPipe) id: number, @Body() request: WeightsRequest): Promise<PolicyEffectReply> {
    return this.weights.effect(id, request);
  }

  @Post(':id/weights/take')
  @HttpCode(200)
  takeWeights(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: TakeWeightsRequest,
  ): Promise<WeightsTakenReply> {
    return this.weights.take(actor, id, request);
  }

  @Post(':id/weights/restore')
  @HttpCode(200)
  restoreWeights(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: RestoreWeightsRequest,
  ): Promise<WeightsReply> {
    return this.weights.restore(actor, id, request);
  }
}
