export { ScalesModule } from './scales.module.js';
export { ScalesRepository } from './scales.repository.js';
export { usesIn } from './scale-use.service.js';
