export { CodesModule } from './codes.module.js';
export { CodesRepository } from './codes.repository.js';
