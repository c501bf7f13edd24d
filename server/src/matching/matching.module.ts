import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { PlatformsModule } from '#server/platforms';
import { ReportItemsModule } from '#server/report-items';
import { JoinPeopleService } from './join-people.service.js';
import { MatchThing } from './match.thing.js';
import { MatchesRepository } from './matches.repository.js';
import { MatchesService } from './matches.service.js';
import { MatchingController } from './matching.controller.js';
import { WeightsRepository } from './weights.repository.js';
import { WeightsService } from './weights.service.js';

@Module({
  imports: [PeriodViewModule, CalculationModule, CalendarModule, ChangesModule, PlatformsModule, ReportItemsModule],
  controllers: [MatchingController],
  providers: [MatchesRepository, MatchThing, MatchesService, JoinPeopleService, WeightsRepository, WeightsService],
})
export class MatchingModule {}
