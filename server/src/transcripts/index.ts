export { SealService } from './seal.service.js';
export { TranscriptsModule } from './transcripts.module.js';
