export { MatchesService } from './matches.service.js';
export { MatchingModule } from './matching.module.js';
export { PlatformsService } from './platforms.service.js';
export { PlatformClient } from './platform-client.js';
export { PlatformProblem } from './platform-problem.js';
export { PlatformsRepository, type KeptPlatform, type NightlyPlan } from './platforms.repository.js';
export { readClassWork } from './read-class-work.js';
