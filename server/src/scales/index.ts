export { ScalesModule } from './scales.module.js';
export { ScalesRepository, type ScaleVersion } from './scales.repository.js';
export { ScaleUseService } from './scale-use.service.js';
export { SectionScales, type SectionScale } from './section-scales.js';
