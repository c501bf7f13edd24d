export { computedValue, GradeRowsRepository, type GradeRow } from './grade-rows.repository.js';
export { PostingModule } from './posting.module.js';
export { SheetContextService } from './sheet-context.service.js';
