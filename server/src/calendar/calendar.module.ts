import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { CalendarChecks } from './calendar-checks.service.js';
import { CalendarThing } from './calendar.thing.js';
import { CalendarController } from './calendar.controller.js';
import { CalendarRepository } from './calendar.repository.js';
import { CalendarService } from './calendar.service.js';
import { PeriodsRepository } from './periods.repository.js';

@Module({
  imports: [ChangesModule],
  controllers: [CalendarController],
  providers: [CalendarChecks, CalendarThing, CalendarRepository, CalendarService, PeriodsRepository],
  exports: [CalendarRepository, CalendarService, PeriodsRepository],
})
export class CalendarModule {}
