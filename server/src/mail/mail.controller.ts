import { Controller, Get, Header, Param, ParseIntPipe, Query } from '@nestjs/common';
import type { MailReply } from '#contract/mail';
import { CurrentActor, May, type Actor } from '#server/platform';
import { MailService } from './mail.service.js';

@Controller('mails')
export class MailController {
  constructor(private readonly mail: MailService) {}

  @Get()
  @May('read-outbox', { school: 'query.school' })
  ofSchool(@CurrentActor() actor: Actor, @Query('school', ParseIntPipe) schoolId: number): Promise<MailReply[]> {
    return this.mail.ofSchool(actor, schoolId);
  }

  /** The letter as a file that mail programs open. */
  @Get(':id/message')
  @May('read-outbox', { mail: 'id' })
  @Header('content-type', 'message/rfc822')
  @Header('content-disposition', 'attachment; filename="message.eml"')
  message(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<string> {
    return this.mail.messageOrThrow(actor, id);
  }
}
