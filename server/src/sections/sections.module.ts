import { Module } from '@nestjs/common';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { EnrollmentThing } from './enrollment.thing.js';
import { EnrollmentsController } from './enrollments.controller.js';
import { EnrollmentsRepository } from './enrollments.repository.js';
import { EnrollmentsService } from './enrollments.service.js';
import { MovedWorkRepository } from './moving/moved-work.repository.js';
import { MovedWorkThing } from './moving/moved-work.thing.js';
import { MovePlanner } from './moving/move-planner.js';
import { MovingController } from './moving/moving.controller.js';
import { MovingService } from './moving/moving.service.js';
import { NamedThingsRepository } from './named-things.repository.js';
import { OwnSectionsRepository } from './own-sections.repository.js';
import { BroughtAssignments } from './reshaping/brought-assignments.js';
import { MergingSectionsService } from './reshaping/merging-sections.service.js';
import { ReshapedSectionsRepository } from './reshaping/reshaped-sections.repository.js';
import { ReshapingController } from './reshaping/reshaping.controller.js';
import { SplittingService } from './reshaping/splitting.service.js';
import { SectionThing } from './section.thing.js';
import { SectionsController } from './sections.controller.js';
import { SectionsService } from './sections.service.js';

@Module({
  imports: [CalculationModule, CalendarModule, ChangesModule],
  controllers: [EnrollmentsController, MovingController, ReshapingController, SectionsController],
  providers: [
    BroughtAssignments,
    EnrollmentThing,
    EnrollmentsRepository,
    EnrollmentsService,
    MergingSectionsService,
    MovePlanner,
    MovedWorkRepository,
    MovedWorkThing,
    MovingService,
    NamedThingsRepository,
    OwnSectionsRepository,
    ReshapedSectionsRepository,
    SectionThing,
    SectionsService,
    SplittingService,
  ],
  exports: [EnrollmentsService],
})
export class SectionsModule {}
