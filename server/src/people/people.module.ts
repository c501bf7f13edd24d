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
import { DifferentPeopleThing } from './merging/different-people.thing.js';
import { MergedPeopleRepository } from './merging/merged-people.repository.js';
import { MergedPeopleThing } from './merging/merged-people.thing.js';
import { MergingController } from './merging/merging.controller.js';
import { MergingService } from './merging/merging.service.js';
import { OwnViewsRepository } from './own-views.repository.js';
import { ForgottenPasswords } from './accounts/forgotten-passwords.service.js';
import { OwnAddress } from './accounts/own-address.js';
import { PasskeysController } from './passkeys/passkeys.controller.js';
import { PasskeysRepository } from './passkeys/passkeys.repository.js';
import { PasskeysService } from './passkeys/passkeys.service.js';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { PersonThing } from './person.thing.js';
import { RosterRepository } from './roster.repository.js';
import { SessionController } from './session.controller.js';
import { SignInService } from './sign-in.service.js';
import { SignInTries } from './sign-in-tries.js';

@Module({
  imports: [CalendarModule, ChangesModule, MailModule],
  controllers: [AccountsController, MergingController, PasskeysController, PeopleController, SessionController],
  providers: [
    AccountThing,
    AccountsRepository,
    AccountsService,
    DifferentPeopleThing,
    MergedPeopleRepository,
    MergedPeopleThing,
    MergingService,
    OwnViewsRepository,
    ForgottenPasswords,
    OwnAddress,
    PasskeysRepository,
    PasskeysService,
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
