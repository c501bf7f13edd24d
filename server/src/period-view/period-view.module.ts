import { Module } from '@nestjs/common';
import { CodesModule } from '#server/codes';
import { CalendarModule } from '#server/calendar';
import { CoursesModule } from '#server/courses';
import { PlacementsModule } from '#server/placements';
import { ReportItemsModule } from '#server/report-items';
import { GpaPolicyRepository } from './gpa-policy.repository.js';
import { PeriodViews } from './period-views.js';
import { PoliciesRepository } from './policies.repository.js';
import { ScaleVersionsRepository } from './scale-versions.repository.js';
import { SectionsRepository } from './sections.repository.js';
import { SetUpMark } from './set-up-mark.js';

@Module({
  imports: [CodesModule, CalendarModule, CoursesModule, PlacementsModule, ReportItemsModule],
  providers: [
    GpaPolicyRepository,
    PeriodViews,
    PoliciesRepository,
    ScaleVersionsRepository,
    SectionsRepository,
    SetUpMark,
  ],
  exports: [GpaPolicyRepository, PeriodViews, PoliciesRepository, ScaleVersionsRepository, SetUpMark],
})
export class PeriodViewModule {}
