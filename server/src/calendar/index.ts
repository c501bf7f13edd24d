export { PeriodsRepository, type SchoolPeriod } from './periods.repository.js';
