import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { GradeRowsModule } from '#server/grade-rows';
import { PeriodViewModule } from '#server/period-view';
import { PostingModule } from '#server/posting';
import { TranscriptsModule } from '#server/transcripts';
import { ReportCardService } from './report-card.service.js';
import { ReportCardsController } from './report-cards.controller.js';

@Module({
  imports: [CalendarModule, ChangesModule, GradeRowsModule, PeriodViewModule, PostingModule, TranscriptsModule],
  controllers: [ReportCardsController],
  providers: [ReportCardService],
})
export class ReportCardsModule {}
