import { Module } from '@nestjs/common';
import { AccountsRepository } from './accounts.repository.js';
import { AccountThing } from './accounts/account.thing.js';
import { AccountsController } from './accounts/accounts.controller.js';
import { AccountsService } from './accounts/accounts.service.js';
import { PasswordsService } from './accounts/passwords.service.js';
import { StaffAccountsRepository } from './accounts/staff-accounts.repository.js';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { MailModule } from '#server/mail';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { PersonThing } from './person.thing.js';
import { RosterRepository } from './roster.repository.js';
import { SessionController } from './session.controller.js';
import { SignInService } from './sign-in.service.js';
import { SignInTries } from './sign-in-tries.js';

@Module({
  imports: [CalendarModule, ChangesModule, MailModule],
  controllers: [AccountsController, PeopleController, SessionController],
  providers: [
    AccountThing,
    AccountsRepository,
    AccountsService,
    PasswordsService,
    PeopleService,
    PersonThing,
    RosterRepository,
    SignInService,
    SignInTries,
    StaffAccountsRepository,
  ],
})
export class PeopleModule {}
