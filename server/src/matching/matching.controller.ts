import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import {
  ConnectPlatformRequest,
  DecideMatchesRequest,
  type DecidedReply,
  type MatchesReply,
  type PlatformReply,
} from '#contract/matching';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { MatchesService } from './matches.service.js';
import { PlatformsService } from './platforms.service.js';

@Controller('platforms')
@Allow(registrars)
export class MatchingController {
  constructor(
    private readonly platforms: PlatformsService,
    private readonly matches: MatchesService,
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

  @Post(':id/decisions/:decisionId/undo')
  @HttpCode(200)
  undo(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Param('decisionId', ParseIntPipe) decisionId: number,
  ): Promise<DecidedReply> {
    return this.matches.undo(actor, id, decisionId);
  }
}
