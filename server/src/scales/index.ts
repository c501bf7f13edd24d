export { usesIn, usualPrecision } from './scale-use.service.js';
export { ScalesModule } from './scales.module.js';
export { ScalesRepository } from './scales.repository.js';
