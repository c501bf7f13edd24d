export { SealService } from './seal.service.js';
export { SealsRepository } from './seals.repository.js';
export { TranscriptsModule } from './transcripts.module.js';
