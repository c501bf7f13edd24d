import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { MailController } from './mail.controller.js';
import { MailService } from './mail.service.js';
import { MailsRepository } from './mails.repository.js';

@Module({
  imports: [ChangesModule],
  controllers: [MailController],
  providers: [MailService, MailsRepository],
  exports: [MailService],
})
export class MailModule {}
