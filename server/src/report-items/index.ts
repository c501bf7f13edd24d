export { precisionOf, ReportItemsRepository, type KeptItem } from './report-items.repository.js';
export { ReportingService, type Reporting, type ReportingSection } from './reporting.service.js';
export { ReportItemsModule } from './report-items.module.js';
