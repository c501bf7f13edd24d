import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Req } from '@nestjs/common';
import type { Request } from 'express';
import { AddPasskeyRequest, type NewPasskeyOptionsReply, type PasskeyReply } from '#contract/people';
import { CurrentActor, May, type Actor } from '#server/platform';
import { triedFrom } from '../tried-from.js';
import { siteOf } from '../site.js';
import { keepChallenge, takeChallengeOrThrow } from './challenges.js';
import { PasskeysService } from './passkeys.service.js';

/** The keys of one's own devices. */
@Controller('session/passkeys')
export class PasskeysController {
  constructor(private readonly passkeys: PasskeysService) {}

  @Get()
  @May('use-own-account')
  own(@CurrentActor() actor: Actor): Promise<PasskeyReply[]> {
    return this.passkeys.of(actor);
  }

  /** What the device is asked to make a key by. */
  @Post('options')
  @May('use-own-account')
  @HttpCode(200)
  async options(@CurrentActor() actor: Actor, @Req() request: Request): Promise<NewPasskeyOptionsReply> {
    const options = await this.passkeys.newOptions(actor, siteOf(request));
    keepChallenge(request, options.challenge);
    return options;
  }

  @Post()
  @May('use-own-account')
  add(@CurrentActor() actor: Actor, @Body() body: AddPasskeyRequest, @Req() request: Request): Promise<PasskeyReply[]> {
    return this.passkeys.add(actor, body, takeChallengeOrThrow(request), siteOf(request), triedFrom(request));
  }

  @Delete(':id')
  @May('use-own-account')
  remove(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Req() request: Request,
  ): Promise<PasskeyReply[]> {
    return this.passkeys.remove(actor, id, triedFrom(request));
  }
}
