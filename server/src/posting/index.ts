export { GradeRowsRepository, intArray, type GradeRow } from './grade-rows.repository.js';
export { PostingModule } from './posting.module.js';
export { canOpenSheet } from './posting-policy.js';
export { SheetContextService } from './sheet-context.service.js';
export { markBody } from './wire-marks.js';
