export { BookSectionsRepository } from './book-sections.repository.js';
export { BooksRepository } from './books.repository.js';
export { CalculationModule } from './calculation.module.js';
export { CategoriesRepository } from './categories.repository.js';
export { nameStudents } from './name-students.js';
export { PoliciesService } from './policies.service.js';
export { PolicyEffectService } from './policy-effect.service.js';
export { RecalculationService } from './recalculation.service.js';
export { placeInWords, policiesFor } from './section-policies.js';
