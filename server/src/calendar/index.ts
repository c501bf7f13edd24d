export { CalendarRepository } from './calendar.repository.js';
export { CalendarModule } from './calendar.module.js';
export { CalendarService } from './calendar.service.js';
export { PeriodsRepository, type SchoolPeriod } from './periods.repository.js';
