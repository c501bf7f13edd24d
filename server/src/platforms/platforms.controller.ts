import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { ConnectPlatformRequest, type PlatformReply } from '#contract/platforms';
import { CurrentActor, type Actor, May } from '#server/platform';
import { PlatformsService } from './platforms.service.js';

@Controller('platforms')
export class PlatformsController {
  constructor(private readonly platforms: PlatformsService) {}

  @Get()
  @May('read-map', { school: 'query.school' })
  ofSchool(@Query('school', ParseIntPipe) schoolId: number): Promise<PlatformReply[]> {
    return this.platforms.ofSchool(schoolId);
  }

  @Post()
  @May('map', { school: 'body.schoolId' })
  connect(@CurrentActor() actor: Actor, @Body() request: ConnectPlatformRequest): Promise<PlatformReply> {
    return this.platforms.connect(actor, request);
  }

  @Delete(':id')
  @May('map', { platform: 'id' })
  @HttpCode(204)
  remove(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.platforms.remove(actor, id);
  }

  @Post(':id/read')
  @May('map', { platform: 'id' })
  @HttpCode(202)
  read(@Param('id', ParseIntPipe) id: number): Promise<PlatformReply> {
    return this.platforms.read(id);
  }

  @Post(':id/cancel')
  @May('map', { platform: 'id' })
  @HttpCode(200)
  cancel(@Param('id', ParseIntPipe) id: number): Promise<PlatformReply> {
    return this.platforms.cancel(id);
  }
}
