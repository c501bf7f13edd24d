import { Module } from '@nestjs/common';
import { CodesModule } from '#server/codes';
import { PeriodViewModule } from '#server/period-view';
import { AuditModule } from '#server/audit';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { PostingModule } from '#server/posting';
import { ScalesModule } from '#server/scales';
import { GpaSettingsThing } from './gpa-settings.thing.js';
import { GpaPolicyService } from './gpa-policy.service.js';
import { SealService } from './seal.service.js';
import { SealsRepository } from './seals.repository.js';
import { StudentListService } from './student-list.service.js';
import { TranscriptService } from './transcript.service.js';
import { TranscriptsController } from './transcripts.controller.js';

@Module({
  imports: [CodesModule, PeriodViewModule, AuditModule, CalendarModule, ChangesModule, PostingModule, ScalesModule],
  controllers: [TranscriptsController],
  providers: [GpaPolicyService, GpaSettingsThing, SealService, SealsRepository, StudentListService, TranscriptService],
  exports: [SealService, SealsRepository],
})
export class TranscriptsModule {}
