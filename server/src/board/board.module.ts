import { Module } from '@nestjs/common';
import { CalendarModule } from '#server/calendar';
import { MailModule } from '#server/mail';
import { PeriodViewModule } from '#server/period-view';
import { PostingModule } from '#server/posting';
import { TermLineModule } from '#server/term-line';
import { BoardController } from './board.controller.js';
import { BoardEvents } from './board-events.js';
import { BoardService } from './board.service.js';
import { BoardSheets } from './board-sheets.service.js';
import { RemindersRepository } from './reminders.repository.js';
import { RemindersService } from './reminders.service.js';
import { SheetChangesRepository } from './sheet-changes.repository.js';
import { SheetCountsRepository } from './sheet-counts.repository.js';

@Module({
  imports: [CalendarModule, MailModule, PeriodViewModule, PostingModule, TermLineModule],
  controllers: [BoardController],
  providers: [
    BoardEvents,
    BoardService,
    BoardSheets,
    RemindersRepository,
    RemindersService,
    SheetChangesRepository,
    SheetCountsRepository,
  ],
})
export class BoardModule {}
