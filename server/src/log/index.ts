export { ChangeLog, type Change } from './change-log.js';
export { LogModule } from './log.module.js';
export { revisionOf } from './revision.js';
