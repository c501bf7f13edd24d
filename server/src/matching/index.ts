export { MatchingModule } from './matching.module.js';
export { PlatformsService } from './platforms.service.js';
