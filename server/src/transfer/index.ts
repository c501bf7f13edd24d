export { NightlyRunsService } from './nightly-runs.service.js';
export { RunsService } from './runs.service.js';
export { TransferModule } from './transfer.module.js';
