export { BookSectionsRepository } from './book-sections.repository.js';
export { BooksRepository } from './books.repository.js';
export { CalculatedGradesRepository } from './calculated-grades.repository.js';
export { CalculationModule } from './calculation.module.js';
export { CategoriesRepository } from './categories.repository.js';
export { PoliciesRepository } from './policies.repository.js';
export { PoliciesService } from './policies.service.js';
export { RecalculationService } from './recalculation.service.js';
