export { precisionOf, ReportItemsRepository, type KeptItem } from './report-items.repository.js';
export { ReportItemsModule } from './report-items.module.js';
