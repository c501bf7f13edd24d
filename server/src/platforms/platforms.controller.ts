import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { ConnectPlatformRequest, type PlatformReply } from '#contract/platforms';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { PlatformsService } from './platforms.service.js';

@Controller('platforms')
@Allow(registrars)
export class PlatformsController {
  constructor(private readonly platforms: PlatformsService) {}

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
}
