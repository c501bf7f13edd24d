import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { CoursesModule } from '#server/courses';
import { LogModule } from '#server/log';
import { ReportItemsModule } from '#server/report-items';
import { CodesService } from './codes.service.js';
import { PlacementsService } from './placements.service.js';
import { ScalePreviewService } from './scale-preview.service.js';
import { ScaleUseService } from './scale-use.service.js';
import { ScalesController } from './scales.controller.js';
import { ScalesRepository } from './scales.repository.js';
import { ScalesService } from './scales.service.js';
import { SectionScales } from './section-scales.js';

@Module({
  imports: [CalendarModule, CoursesModule, LogModule, ReportItemsModule],
  controllers: [ScalesController],
  providers: [
    CodesService,
    PlacementsService,
    ScalePreviewService,
    ScaleUseService,
    ScalesRepository,
    ScalesService,
    SectionScales,
  ],
  exports: [ScalesRepository, ScaleUseService, SectionScales],
})
export class ScalesModule {}
