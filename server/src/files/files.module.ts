import { Module } from '@nestjs/common';
import { AuditModule } from '#server/audit';
import { CodesModule } from '#server/codes';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { PeriodViewModule } from '#server/period-view';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { FileDirectoryService } from './file-directory.service.js';
import { FileImportsController } from './file-imports.controller.js';
import { FileImportsRepository } from './file-imports.repository.js';
import { FileImportsService } from './file-imports.service.js';
import { FileMeaningService } from './file-meaning.service.js';
import { FilePlannerService } from './file-planner.service.js';
import { FileValuesRepository } from './file-values.repository.js';
import { FileWorker } from './file-worker.js';

@Module({
  imports: [AuditModule, CodesModule, CalendarModule, ChangesModule, PeriodViewModule, ReportItemsModule, ScalesModule],
  controllers: [FileImportsController],
  providers: [
    FileDirectoryService,
    FileImportsRepository,
    FileImportsService,
    FileMeaningService,
    FilePlannerService,
    FileValuesRepository,
    FileWorker,
  ],
})
export class FilesModule {}
