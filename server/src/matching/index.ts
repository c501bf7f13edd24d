export { MatchesService } from './matches.service.js';
export { MatchingModule } from './matching.module.js';
