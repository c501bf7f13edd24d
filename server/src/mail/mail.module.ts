import { Module } from '@nestjs/common';
import { LogModule } from '#server/log';
import { MailController } from './mail.controller.js';
import { MailService } from './mail.service.js';
import { MailsRepository } from './mails.repository.js';

@Module({
  imports: [LogModule],
  controllers: [MailController],
  providers: [MailService, MailsRepository],
  exports: [MailService],
})
export class MailModule {}
