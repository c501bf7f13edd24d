import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { PeriodViewModule } from '#server/period-view';
import { PostingModule } from '#server/posting';
import { TermLineController } from './term-line.controller.js';
import { TermLineService } from './term-line.service.js';

@Module({
  imports: [CalendarModule, PeriodViewModule, PostingModule],
  controllers: [TermLineController],
  providers: [TermLineService],
  exports: [TermLineService],
})
export class TermLineModule {}
