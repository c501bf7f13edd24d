import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Req } from '@nestjs/common';
import type { Request } from 'express';
import { ChangeAccountRequest, SendLinksRequest, type AccountsReply, type SentLinksReply } from '#contract/people';
import { CurrentActor, type Actor, May } from '#server/platform';
import { siteOf } from '../site.js';
import { AccountsService } from './accounts.service.js';

@Controller('schools/:schoolId/accounts')
export class AccountsController {
  constructor(private readonly accounts: AccountsService) {}

  @Get()
  @May('manage-access', { school: 'schoolId' })
  ofSchool(@Param('schoolId', ParseIntPipe) schoolId: number): Promise<AccountsReply> {
    return this.accounts.ofSchool(schoolId);
  }

  /** Invites whoever has no account, and sends whoever has one a link for another password. */
  @Post('links')
  @May('manage-access', { school: 'schoolId' })
  @HttpCode(200)
  sendLinks(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SendLinksRequest,
    @Req() asked: Request,
  ): Promise<SentLinksReply> {
    return this.accounts.sendLinks(actor, schoolId, request, siteOf(asked).origin);
  }

  @Put(':personId')
  @May('manage-access', { school: 'schoolId' })
  change(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Param('personId', ParseIntPipe) personId: number,
    @Body() request: ChangeAccountRequest,
  ): Promise<AccountsReply> {
    return this.accounts.change(actor, schoolId, personId, request);
  }
}
