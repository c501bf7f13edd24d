export { CompositesService } from './composites.service.js';
export { PostingModule } from './posting.module.js';
export { PostingRequestsRepository } from './posting-requests.repository.js';
export { SaveSheetService } from './save-sheet.service.js';
export { SectionProgressRepository } from './section-progress.repository.js';
export { SheetContextService } from './sheet-context.service.js';
export { sheetId, type SheetPlace } from './sheet-place.js';
export { SignOffsRepository } from './sign-offs.repository.js';
