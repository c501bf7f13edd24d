export { ChainCheck } from './chain-check.service.js';
export { ChangeLog } from './change-log.js';
export { ChangesModule } from './changes.module.js';
export { LogService } from './log.service.js';
export { revisionOf } from './revision.js';
export { Changes, type Edit } from './changes.service.js';
export { rememberReply } from './made-change.js';
export { ThingOf, type Thing } from './thing.js';
export { sha256 } from './sha256.js';
