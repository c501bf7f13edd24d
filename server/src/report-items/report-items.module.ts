import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { CoursesModule } from '#server/courses';
import { PlacementsModule } from '#server/placements';
import { ChangesModule } from '#server/changes';
import { ItemChecks } from './item-checks.service.js';
import { ItemWindowsRepository } from './item-windows.repository.js';
import { ItemWindowsThing } from './item-windows.thing.js';
import { ReportItemThing } from './report-item.thing.js';
import { ReportRulesThing } from './report-rules.thing.js';
import { LabelsRepository } from './labels.repository.js';
import { ReportItemsController } from './report-items.controller.js';
import { ReportItemsRepository } from './report-items.repository.js';
import { ReportItemsService } from './report-items.service.js';

@Module({
  imports: [CalendarModule, CoursesModule, PlacementsModule, ChangesModule],
  controllers: [ReportItemsController],
  providers: [
    ItemChecks,
    ItemWindowsRepository,
    ItemWindowsThing,
    ReportItemThing,
    ReportRulesThing,
    LabelsRepository,
    ReportItemsRepository,
    ReportItemsService,
  ],
  exports: [ItemChecks, ItemWindowsRepository, ReportItemsRepository],
})
export class ReportItemsModule {}
