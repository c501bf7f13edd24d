import { Module } from '@nestjs/common';
import { CoursesRepository } from '#server/courses';
import { LogModule } from '#server/log';
import { ReportItemsController } from './report-items.controller.js';
import { ReportItemsRepository } from './report-items.repository.js';
import { ReportItemsService } from './report-items.service.js';
import { ReportingService } from './reporting.service.js';

@Module({
  imports: [LogModule],
  controllers: [ReportItemsController],
  providers: [CoursesRepository, ReportItemsRepository, ReportItemsService, ReportingService],
  exports: [ReportItemsRepository, ReportingService],
})
export class ReportItemsModule {}
