import { randomBytes } from 'node:crypto';
import { promisify } from 'node:util';
import { Body, Controller, Delete, Get, HttpCode, Post, Put, Req } from '@nestjs/common';
import type { Request } from 'express';
import type { OwnView } from '#core/people';
import {
  AskForLinkRequest,
  ChangeOwnViewRequest,
  ChangePasswordRequest,
  LookAtLinkRequest,
  SeeAsRequest,
  SignInByPasskeyRequest,
  SignInRequest,
  UseLinkRequest,
  type DemoPersonReply,
  type LinkReply,
  type PasskeyOptionsReply,
  type SessionReply,
} from '#contract/people';
import {
  CurrentActor,
  Public,
  type Actor,
  type SignedIn,
  May,
  Actors,
  pauseSecondsOf,
  WhileSeeing,
} from '#server/platform';
import { PasswordsService } from './accounts/passwords.service.js';
import { AccountsRepository } from './accounts.repository.js';
import { OwnViewsRepository } from './own-views.repository.js';
import { SignInService } from './sign-in.service.js';
import { ForgottenPasswords } from './accounts/forgotten-passwords.service.js';
import { siteOf } from './site.js';
import { keepChallenge, takeChallengeOrThrow } from './passkeys/challenges.js';
import { PasskeysService } from './passkeys/passkeys.service.js';
import { triedFrom } from './tried-from.js';

@Controller('session')
export class SessionController {
  constructor(
    private readonly signIns: SignInService,
    private readonly passwords: PasswordsService,
    private readonly accounts: AccountsRepository,
    private readonly actors: Actors,
    private readonly views: OwnViewsRepository,
    private readonly passkeys: PasskeysService,
    private readonly forgotten: ForgottenPasswords,
  ) {}

  @Post()
  @Public()
  async signIn(@Body() { username, password }: SignInRequest, @Req() request: Request): Promise<SessionReply> {
    const { actor, signedIn } = await this.signIns.signInOrThrow(username, password, triedFrom(request));
    return this.begin(request, actor, signedIn);
  }

  /** Writes a message with a link by which to choose a new password, where there is such an account. */
  @Post('link/ask')
  @HttpCode(204)
  @Public()
  async askForLink(@Body() { name }: AskForLinkRequest, @Req() request: Request): Promise<void> {
    await this.forgotten.ask(name, siteOf(request).origin, triedFrom(request));
  }

  /** What a device is asked by that knows whose it is. */
  @Post('passkey/options')
  @HttpCode(200)
  @Public()
  async passkeyOptions(@Req() request: Request): Promise<PasskeyOptionsReply> {
    const options = await this.passkeys.options(siteOf(request), triedFrom(request));
    keepChallenge(request, options.challenge);
    return options;
  }

  /** Signs in by a key of one's own device. */
  @Post('passkey')
  @Public()
  async signInByPasskey(@Body() body: SignInByPasskeyRequest, @Req() request: Request): Promise<SessionReply> {
    const challenge = takeChallengeOrThrow(request);
    const { actor, signedIn } = await this.passkeys.signIn(body, challenge, siteOf(request), triedFrom(request));
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
    const { actor, signedIn } = await this.passwords.use(body, triedFrom(request));
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
    return this.begin(request, actor, await this.passwords.change(actor, body, triedFrom(request)));
  }

  @Get()
  @May('use-own-account')
  current(@CurrentActor() actor: Actor, @Req() { session }: Request): Promise<SessionReply> {
    return this.reply(actor, session);
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
    await this.signIns.signOut(actor, triedFrom(request));
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
    await this.signIns.noteSeeing(actor, personId, triedFrom(request));
    request.session.signedIn = { ...request.session.signedIn!, seesAs: personId };
    return this.reply((await this.actors.of(request.session.signedIn))!, request.session);
  }

  @Delete('seeing')
  @May('use-own-account')
  @WhileSeeing()
  async seeOwn(@Req() request: Request): Promise<SessionReply> {
    const { seesAs: _seesAs, ...own } = request.session.signedIn!;
    request.session.signedIn = own;
    return this.reply((await this.actors.of(own))!, request.session);
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
    return this.reply(actor, request.session);
  }

  private async reply({ personId, name, grants, behind }: Actor, session: Request['session']): Promise<SessionReply> {
    return {
      person: { personId, name, grants },
      seenBy: behind?.name ?? null,
      csrfToken: session.csrfToken!,
      pauseSeconds: pauseSecondsOf(session),
      timeZone: await this.accounts.timeZone(),
      district: await this.accounts.district(),
      view: await this.views.read(personId),
    };
  }
}
