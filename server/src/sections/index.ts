export { EnrollmentsService } from './enrollments.service.js';
export { isUsedOf } from './enrollments.repository.js';
export { SectionsModule } from './sections.module.js';
