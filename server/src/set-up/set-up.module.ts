import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { CoursesModule } from '#server/courses';
import { PlacementsModule } from '#server/placements';
import { ChangesModule } from '#server/changes';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { CopySetUpService } from './copy-set-up.service.js';
import { FirstStepsService } from './first-steps.service.js';
import { SetUpController } from './set-up.controller.js';
import { SetUpService } from './set-up.service.js';

@Module({
  imports: [
    PeriodViewModule,
    CalculationModule,
    CalendarModule,
    CoursesModule,
    PlacementsModule,
    ChangesModule,
    ReportItemsModule,
    ScalesModule,
  ],
  controllers: [SetUpController],
  providers: [CopySetUpService, FirstStepsService, SetUpService],
})
export class SetUpModule {}
