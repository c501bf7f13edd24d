import { Module } from '@nestjs/common';
import { LogModule } from '#server/log';
import { CalendarController } from './calendar.controller.js';
import { CalendarRepository } from './calendar.repository.js';
import { CalendarService } from './calendar.service.js';
import { PeriodsRepository } from './periods.repository.js';

@Module({
  imports: [LogModule],
  controllers: [CalendarController],
  providers: [CalendarRepository, CalendarService, PeriodsRepository],
  exports: [CalendarRepository, CalendarService, PeriodsRepository],
})
export class CalendarModule {}
