export { ChangeLog } from './change-log.js';
export { LogModule } from './log.module.js';
