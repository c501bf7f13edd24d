import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { CalendarController } from './calendar.controller.js';
import { CalendarRepository } from './calendar.repository.js';
import { CalendarService } from './calendar.service.js';
import { PeriodsRepository } from './periods.repository.js';

@Module({
  imports: [ChangesModule],
  controllers: [CalendarController],
  providers: [CalendarRepository, CalendarService, PeriodsRepository],
  exports: [CalendarRepository, CalendarService, PeriodsRepository],
})
export class CalendarModule {}
