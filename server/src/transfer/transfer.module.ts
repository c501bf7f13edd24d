import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { MailModule } from '#server/mail';
import { MatchingModule } from '#server/matching';
import { PostingModule } from '#server/posting';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { CarryClassService } from './carry-class.service.js';
import { CarryOverRepository } from './carry-over.repository.js';
import { FileDirectoryService } from './file-directory.service.js';
import { FileImportsController } from './file-imports.controller.js';
import { FileImportsRepository } from './file-imports.repository.js';
import { FileImportsService } from './file-imports.service.js';
import { FilePlannerService } from './file-planner.service.js';
import { FileValuesRepository } from './file-values.repository.js';
import { FileWorker } from './file-worker.js';
import { LedgerRepository } from './ledger.repository.js';
import { NightlyRunsService } from './nightly-runs.service.js';
import { PlatformJoinsRepository } from './platform-joins.repository.js';
import { RunGroundService } from './run-ground.service.js';
import { RunLettersService } from './run-letters.service.js';
import { RunWorker } from './run-worker.js';
import { RunsController } from './runs.controller.js';
import { RunsRepository } from './runs.repository.js';
import { RunsService } from './runs.service.js';
import { SectionBooksRepository } from './section-books.repository.js';
import { UndoClassService } from './undo-class.service.js';

@Module({
  imports: [
    PeriodViewModule,
    CalculationModule,
    CalendarModule,
    ChangesModule,
    MailModule,
    MatchingModule,
    PostingModule,
    ReportItemsModule,
    ScalesModule,
  ],
  controllers: [FileImportsController, RunsController],
  providers: [
    CarryClassService,
    CarryOverRepository,
    FileDirectoryService,
    FileImportsRepository,
    FileImportsService,
    FilePlannerService,
    FileValuesRepository,
    FileWorker,
    LedgerRepository,
    NightlyRunsService,
    PlatformJoinsRepository,
    RunGroundService,
    RunLettersService,
    RunWorker,
    RunsRepository,
    RunsService,
    SectionBooksRepository,
    UndoClassService,
  ],
})
export class TransferModule {}
