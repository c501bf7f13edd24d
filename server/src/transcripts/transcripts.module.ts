import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { AuditModule } from '#server/audit';
import { CalendarModule } from '#server/calendar';
import { LogModule } from '#server/log';
import { PostingModule } from '#server/posting';
import { ScalesModule } from '#server/scales';
import { GpaPolicyService } from './gpa-policy.service.js';
import { SealService } from './seal.service.js';
import { SealsRepository } from './seals.repository.js';
import { TranscriptService } from './transcript.service.js';
import { TranscriptsController } from './transcripts.controller.js';

@Module({
  imports: [PeriodViewModule, AuditModule, CalendarModule, LogModule, PostingModule, ScalesModule],
  controllers: [TranscriptsController],
  providers: [GpaPolicyService, SealService, SealsRepository, TranscriptService],
  exports: [SealService],
})
export class TranscriptsModule {}
