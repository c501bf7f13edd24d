export { ItemWindowsRepository } from './item-windows.repository.js';
export { ItemChecks } from './item-checks.service.js';
export { precisionOf, ReportItemsRepository } from './report-items.repository.js';
export { ReportItemsModule } from './report-items.module.js';
