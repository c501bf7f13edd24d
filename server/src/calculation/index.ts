export { CalculationModule } from './calculation.module.js';
export { PoliciesService } from './policies.service.js';
export { RecalculationService } from './recalculation.service.js';
