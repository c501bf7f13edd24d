import { randomBytes } from 'node:crypto';
import { promisify } from 'node:util';
import { Body, Controller, Delete, Get, HttpCode, Post, Put, Req } from '@nestjs/common';
import type { Request } from 'express';
import { wholeText } from '#core/formats';
import type { OwnView } from '#core/people';
import {
  ChangeOwnViewRequest,
  ChangePasswordRequest,
  LookAtLinkRequest,
  SeeAsRequest,
  SignInRequest,
  UseLinkRequest,
  type DemoPersonReply,
  type LinkReply,
  type SessionReply,
} from '#contract/people';
import { CurrentActor, Public, type Actor, type SignedIn, May, Actors, WhileSeeing } from '#server/platform';
import { PasswordsService } from './accounts/passwords.service.js';
import { AccountsRepository } from './accounts.repository.js';
import { OwnViewsRepository } from './own-views.repository.js';
import { SignInService } from './sign-in.service.js';
import type { TriedFrom } from './sign-in-tries.js';

@Controller('session')
export class SessionController {
  constructor(
    private readonly signIns: SignInService,
    private readonly passwords: PasswordsService,
    private readonly accounts: AccountsRepository,
    private readonly actors: Actors,
    private readonly views: OwnViewsRepository,
  ) {}

  @Post()
  @Public()
  async signIn(@Body() { username, password }: SignInRequest, @Req() request: Request): Promise<SessionReply> {
    const { actor, signedIn } = await this.signIns.signInOrThrow(username, password, fromOf(request));
    return this.begin(request, actor, signedIn);
  }

  /** Whose password a link sets; the link is in the body, as addresses are written into logs. */
  @Post('link')
  @HttpCode(200)
  @Public()
  lookAtLink(@Body() { token }: LookAtLinkRequest): Promise<LinkReply> {
    return this.passwords.lookAt(token);
  }

  /** Sets a password by a link, and signs in with it. */
  @Put('link')
  @Public()
  async useLink(@Body() body: UseLinkRequest, @Req() request: Request): Promise<SessionReply> {
    const { actor, signedIn } = await this.passwords.use(body, fromOf(request));
    return this.begin(request, actor, signedIn);
  }

  /** Changes one's own password; one's other sessions end. */
  @Put('password')
  @May('use-own-account')
  async changePassword(
    @CurrentActor() actor: Actor,
    @Body() body: ChangePasswordRequest,
    @Req() request: Request,
  ): Promise<SessionReply> {
    return this.begin(request, actor, await this.passwords.change(actor, body, fromOf(request)));
  }

  @Get()
  @May('use-own-account')
  current(@CurrentActor() actor: Actor, @Req() { session }: Request): Promise<SessionReply> {
    return this.reply(actor, session.csrfToken!);
  }

  /** Changes how one likes what one sees; what is not named stays. */
  @Put('view')
  @May('use-own-account')
  changeView(@CurrentActor() { personId }: Actor, @Body() change: ChangeOwnViewRequest): Promise<OwnView> {
    return this.views.change(personId, change);
  }

  @Delete()
  @May('use-own-account')
  @WhileSeeing()
  @HttpCode(204)
  async signOut(@CurrentActor() actor: Actor, @Req() request: Request): Promise<void> {
    await this.signIns.signOut(actor, fromOf(request));
    await promisify(request.session.destroy.bind(request.session))();
  }

  /** From now on one sees what somebody else sees, until one goes back. */
  @Post('seeing')
  @May('see-as', { person: 'body.personId' })
  @HttpCode(200)
  async seeAs(
    @CurrentActor() actor: Actor,
    @Body() { personId }: SeeAsRequest,
    @Req() request: Request,
  ): Promise<SessionReply> {
    await this.signIns.noteSeeing(actor, personId, fromOf(request));
    request.session.signedIn = { ...request.session.signedIn!, seesAs: personId };
    return this.reply((await this.actors.of(request.session.signedIn))!, request.session.csrfToken!);
  }

  @Delete('seeing')
  @May('use-own-account')
  @WhileSeeing()
  async seeOwn(@Req() request: Request): Promise<SessionReply> {
    const { seesAs: _seesAs, ...own } = request.session.signedIn!;
    request.session.signedIn = own;
    return this.reply((await this.actors.of(own))!, request.session.csrfToken!);
  }

  @Get('demo-people')
  @Public()
  async demoPeople(): Promise<DemoPersonReply[]> {
    return (await this.accounts.demoPeople()) as DemoPersonReply[];
  }

  /** A new session number, so that one planted before signing in is worth nothing afterwards. */
  private async begin(request: Request, actor: Actor, signedIn: SignedIn): Promise<SessionReply> {
    await promisify(request.session.regenerate.bind(request.session))();
    request.session.signedIn = signedIn;
    request.session.csrfToken = randomBytes(32).toString('hex');
    return this.reply(actor, request.session.csrfToken);
  }

  private async reply({ personId, name, grants, behind }: Actor, csrfToken: string): Promise<SessionReply> {
    return {
      person: { personId, name, grants },
      seenBy: behind?.name ?? null,
      csrfToken,
      timeZone: await this.accounts.timeZone(),
      district: await this.accounts.district(),
      view: await this.views.read(personId),
    };
  }
}

/** Cut, as the one who asks writes the second. */
function fromOf(request: Request): TriedFrom {
  return { address: request.ip ?? '', browser: wholeText(request.get('user-agent') ?? '', 200) };
}
