export { CompositesService } from './composites.service.js';
export { givenNamesOf } from './given-names-of.js';
export { type GradeRow, GradeRowsRepository, computedValue } from './grade-rows.repository.js';
export { PostingModule } from './posting.module.js';
export { PostingRequestsRepository } from './posting-requests.repository.js';
export { SectionProgressRepository } from './section-progress.repository.js';
export { SheetContextService } from './sheet-context.service.js';
export { sheetId, type SheetPlace } from './sheet-place.js';
export { SignOffsRepository } from './sign-offs.repository.js';
