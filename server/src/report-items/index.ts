export { ItemChecks } from './item-checks.service.js';
export { precisionOf, ReportItemsRepository, type KeptItem } from './report-items.repository.js';
export { ReportItemsModule } from './report-items.module.js';
