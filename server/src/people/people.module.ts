import { Module } from '@nestjs/common';
import { AccountsRepository } from './accounts.repository.js';
import { SessionController } from './session.controller.js';
import { SignInService } from './sign-in.service.js';

@Module({ controllers: [SessionController], providers: [AccountsRepository, SignInService] })
export class PeopleModule {}
