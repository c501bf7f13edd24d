import { Module } from '@nestjs/common';
import { AccountsRepository } from './accounts.repository.js';
import { ChangesModule } from '#server/changes';
import { SessionController } from './session.controller.js';
import { SignInService } from './sign-in.service.js';
import { SignInTries } from './sign-in-tries.js';

@Module({
  imports: [ChangesModule],
  controllers: [SessionController],
  providers: [AccountsRepository, SignInService, SignInTries],
})
export class PeopleModule {}
