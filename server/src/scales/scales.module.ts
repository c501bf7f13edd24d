import { Module } from '@nestjs/common';
import { CodesModule } from '#server/codes';
import { CalculationModule } from '#server/calculation';
import { PeriodViewModule } from '#server/period-view';
import { CalendarModule } from '#server/calendar';
import { CoursesModule } from '#server/courses';
import { PlacementsModule } from '#server/placements';
import { ChangesModule } from '#server/changes';
import { ReportItemsModule } from '#server/report-items';
import { PlacementsService } from './placements.service.js';
import { ScalePreviewService } from './scale-preview.service.js';
import { ScaleEffects } from './scale-effects.js';
import { ScaleUseService } from './scale-use.service.js';
import { ScalesController } from './scales.controller.js';
import { ScalesRepository } from './scales.repository.js';
import { ScaleReplies } from './scale-replies.service.js';
import { NextVersions } from './next-versions.service.js';
import { ScaleChecks } from './scale-checks.service.js';
import { ScaleRecords } from './scale-records.repository.js';
import { ScaleThing } from './scale.thing.js';
import { ScalesService } from './scales.service.js';

@Module({
  imports: [
    CodesModule,
    CalculationModule,
    PeriodViewModule,
    CalendarModule,
    CoursesModule,
    PlacementsModule,
    ChangesModule,
    ReportItemsModule,
  ],
  controllers: [ScalesController],
  providers: [
    PlacementsService,
    ScalePreviewService,
    ScaleEffects,
    ScaleUseService,
    ScalesRepository,
    ScaleReplies,
    ScalesService,
    NextVersions,
    ScaleChecks,
    ScaleRecords,
    ScaleThing,
  ],
  exports: [ScalesRepository],
})
export class ScalesModule {}
