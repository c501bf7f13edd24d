import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { ReportItemsModule } from '#server/report-items';
import { MatchThing } from './match.thing.js';
import { MatchesRepository } from './matches.repository.js';
import { MatchesService } from './matches.service.js';
import { MatchingController } from './matching.controller.js';
import { PlatformsRepository } from './platforms.repository.js';
import { PlatformsService } from './platforms.service.js';
import { WeightsRepository } from './weights.repository.js';
import { WeightsService } from './weights.service.js';

@Module({
  imports: [PeriodViewModule, CalculationModule, CalendarModule, ChangesModule, ReportItemsModule],
  controllers: [MatchingController],
  providers: [
    MatchesRepository,
    MatchThing,
    MatchesService,
    PlatformsRepository,
    PlatformsService,
    WeightsRepository,
    WeightsService,
  ],
  exports: [PlatformsRepository],
})
export class MatchingModule {}
