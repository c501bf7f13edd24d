export { bandBody } from './band-body.js';
export { ScalesModule } from './scales.module.js';
export { ScalesRepository, type ScaleVersion } from './scales.repository.js';
