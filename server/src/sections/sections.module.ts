import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { EnrollmentThing } from './enrollment.thing.js';
import { EnrollmentsController } from './enrollments.controller.js';
import { EnrollmentsRepository } from './enrollments.repository.js';
import { EnrollmentsService } from './enrollments.service.js';
import { MovedWorkRepository } from './moving/moved-work.repository.js';
import { MovedWorkThing } from './moving/moved-work.thing.js';
import { MovingController } from './moving/moving.controller.js';
import { MovingService } from './moving/moving.service.js';
import { NamedThingsRepository } from './named-things.repository.js';
import { OwnSectionsRepository } from './own-sections.repository.js';
import { SectionThing } from './section.thing.js';
import { SectionsController } from './sections.controller.js';
import { SectionsService } from './sections.service.js';

@Module({
  imports: [CalendarModule, ChangesModule],
  controllers: [EnrollmentsController, MovingController, SectionsController],
  providers: [
    EnrollmentThing,
    EnrollmentsRepository,
    EnrollmentsService,
    MovedWorkRepository,
    MovedWorkThing,
    MovingService,
    NamedThingsRepository,
    OwnSectionsRepository,
    SectionThing,
    SectionsService,
  ],
})
export class SectionsModule {}
