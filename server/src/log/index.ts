export { ChangeLog, type Change } from './change-log.js';
export { LogModule } from './log.module.js';
export { revisionOf } from './revision.js';
export { bringBackRows, rowsToRemove, type RemovedRows } from './removed-rows.js';
