import { Module } from '@nestjs/common';
import { AccountsRepository } from './accounts.repository.js';
import { ChangesModule } from '#server/changes';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { PersonThing } from './person.thing.js';
import { RosterRepository } from './roster.repository.js';
import { SessionController } from './session.controller.js';
import { SignInService } from './sign-in.service.js';
import { SignInTries } from './sign-in-tries.js';

@Module({
  imports: [ChangesModule],
  controllers: [PeopleController, SessionController],
  providers: [AccountsRepository, PeopleService, PersonThing, RosterRepository, SignInService, SignInTries],
})
export class PeopleModule {}
