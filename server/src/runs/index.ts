export { NightlyRunsService } from './nightly-runs.service.js';
export { RunsModule } from './runs.module.js';
export { RunsService } from './runs.service.js';
