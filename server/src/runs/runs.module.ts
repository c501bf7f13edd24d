import { Module } from '@nestjs/common';
import { AuditModule } from '#server/audit';
import { PeriodViewModule } from '#server/period-view';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { GradeRowsModule } from '#server/grade-rows';
import { MailModule } from '#server/mail';
import { PlatformsModule } from '#server/platforms';
import { PostingModule } from '#server/posting';
import { CarryClassService } from './carry-class.service.js';
import { CarryOverRepository } from './carry-over.repository.js';
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
    AuditModule,
    PeriodViewModule,
    CalculationModule,
    CalendarModule,
    ChangesModule,
    GradeRowsModule,
    MailModule,
    PostingModule,
    PlatformsModule,
  ],
  controllers: [RunsController],
  providers: [
    CarryClassService,
    CarryOverRepository,
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
export class RunsModule {}
