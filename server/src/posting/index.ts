export { type GradeRow, GradeRowsRepository, computedValue } from './grade-rows.repository.js';
export { PostingModule } from './posting.module.js';
export { SectionProgressRepository } from './section-progress.repository.js';
export { SheetContextService } from './sheet-context.service.js';
