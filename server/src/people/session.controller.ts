import { randomBytes } from 'node:crypto';
import { promisify } from 'node:util';
import { Body, Controller, Delete, Get, HttpCode, Post, Req } from '@nestjs/common';
import type { Request } from 'express';
import { wholeText } from '#core/formats';
import { SignInRequest, type DemoPersonReply, type SessionReply } from '#contract/people';
import { Allow, CurrentActor, everyone, Public, type Actor } from '#server/platform';
import { AccountsRepository } from './accounts.repository.js';
import { SignInService } from './sign-in.service.js';
import type { TriedFrom } from './sign-in-tries.js';

@Controller('session')
export class SessionController {
  constructor(
    private readonly signIns: SignInService,
    private readonly accounts: AccountsRepository,
  ) {}

  @Post()
  @Public()
  async signIn(@Body() { username, password }: SignInRequest, @Req() request: Request): Promise<SessionReply> {
    const { actor, signedIn } = await this.signIns.signInOrThrow(username, password, fromOf(request));
    // A new session number, so that one planted before signing in is worth nothing afterwards.
    await promisify(request.session.regenerate.bind(request.session))();
    request.session.signedIn = signedIn;
    request.session.csrfToken = randomBytes(32).toString('hex');
    return this.reply(actor, request.session.csrfToken);
  }

  @Get()
  @Allow(everyone)
  current(@CurrentActor() actor: Actor, @Req() { session }: Request): Promise<SessionReply> {
    return this.reply(actor, session.csrfToken!);
  }

  @Delete()
  @HttpCode(204)
  @Allow(everyone)
  async signOut(@CurrentActor() actor: Actor, @Req() request: Request): Promise<void> {
    await this.signIns.signOut(actor, fromOf(request));
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

/** Cut, as the one who asks writes the second. */
function fromOf(request: Request): TriedFrom {
  return { address: request.ip ?? '', browser: wholeText(request.get('user-agent') ?? '', 200) };
}
