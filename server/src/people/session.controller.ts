import { randomBytes } from 'node:crypto';
import { promisify } from 'node:util';
import { Body, Controller, Delete, Get, HttpCode, Post, Req, UseGuards } from '@nestjs/common';
import { ThrottlerGuard } from '@nestjs/throttler';
import type { Request } from 'express';
import { SignInRequest, type DemoPersonReply, type SessionReply } from '#contract/people';
import { Allow, everyone, Public, type Actor } from '#server/platform';
import { AccountsRepository } from './accounts.repository.js';
import { SignInService } from './sign-in.service.js';

@Controller('session')
export class SessionController {
  constructor(
    private readonly signIns: SignInService,
    private readonly accounts: AccountsRepository,
  ) {}

  @Post()
  @Public()
  @UseGuards(ThrottlerGuard)
  async signIn(@Body() { username, password }: SignInRequest, @Req() request: Request): Promise<SessionReply> {
    const actor = await this.signIns.signInOrThrow(username, password);
    // A new session number, so that one planted before signing in is worth nothing afterwards.
    await promisify(request.session.regenerate.bind(request.session))();
    request.session.actor = actor;
    request.session.csrfToken = randomBytes(32).toString('hex');
    return this.reply(actor, request.session.csrfToken);
  }

  @Get()
  @Allow(everyone)
  current(@Req() { session }: Request): Promise<SessionReply> {
    return this.reply(session.actor!, session.csrfToken!);
  }

  @Delete()
  @HttpCode(204)
  @Allow(everyone)
  async signOut(@Req() request: Request): Promise<void> {
    await promisify(request.session.destroy.bind(request.session))();
  }

  @Get('demo-people')
  @Public()
  async demoPeople(): Promise<DemoPersonReply[]> {
    return (await this.accounts.demoPeople()) as DemoPersonReply[];
  }

  private async reply({ personId, name, role }: Actor, csrfToken: string): Promise<SessionReply> {
    return {
      person: { personId, name, role },
      csrfToken,
      timeZone: await this.accounts.timeZone(),
      district: await this.accounts.district(),
    };
  }
}
