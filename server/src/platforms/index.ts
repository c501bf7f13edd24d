export { type Row, gradebook, optionalText, textOf } from './answer-fields.js';
export { PlatformClient } from './platform-client.js';
export { PlatformProblem } from './platform-problem.js';
export { type KeptPlatform, type NightlyPlan, PlatformsRepository } from './platforms.repository.js';
export { PlatformsService } from './platforms.service.js';
export { PlatformsModule } from './platforms.module.js';
