export { Allow, CurrentActor, Public, everyone, registrars } from './auth/access.js';
export { AccessGuard } from './auth/access.guard.js';
export type { Actor } from './auth/actor.js';
export { createSessions } from './auth/session.js';
export { Clock } from './clock/clock.js';
export { DistrictZone } from './clock/district-zone.js';
export { FolderInUseError } from './database/folder-lock.js';
export { openDatabase, type DatabaseSource, type OpenDatabase, type Queries } from './database/open-database.js';
export { Transactions } from './database/transactions.js';
export { makeSeed } from './database/make-seed.js';
export { NulPipe } from './errors/nul-pipe.js';
export { ProblemFilter } from './errors/problem.filter.js';
export { Refusal, type FieldFault } from './errors/refusal.js';
export { createValidationPipe } from './errors/validation-pipe.js';
export { PlatformModule } from './platform.module.js';
export * as tables from './database/tables/index.js';
export { readTableOrThrow } from './files/read-table.js';
export {
  readSpreadsheetOrThrow,
  spreadsheetTypes,
  writeSpreadsheet,
  type SpreadsheetType,
} from './files/spreadsheet.js';
export { CopyReader } from './database/copy-reader.js';
export { Settings } from './settings/settings.js';
