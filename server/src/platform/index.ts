export { CurrentActor, May, Public, WhileSeeing } from './auth/access.js';
export { AccessGuard } from './auth/access.guard.js';
export { Actors } from './auth/actors.js';
export { grantsOf } from './auth/grants-of.js';
export { Whereabouts, type PlaceOf } from './auth/whereabouts.js';
export type { Actor, SignedIn } from './auth/actor.js';
export { createSessions, pauseSecondsOf } from './auth/session.js';
export { Clock } from './clock/clock.js';
export { coTeachersOf } from './database/co-teachers-of.js';
export { countUses, type UseBy } from './database/count-uses.js';
export { nextIds } from './database/next-ids.js';
export { instantText } from './database/instant-text.js';
export { intArray } from './database/int-array.js';
export { textList } from './database/text-list.js';
export { isConstraintViolation } from './database/is-constraint-violation.js';
export { DistrictZone } from './clock/district-zone.js';
export {
  nameOrderOf,
  personName,
  personNameOf,
  sectionName,
  sectionNameOf,
  spokenName,
  spokenNameOf,
  studentNumber,
  studentNumberOf,
} from './database/names.js';
export { markOfTables, OtherTablesError } from './database/bring-up-to-date.js';
export { FolderInUseError } from './database/folder-lock.js';
export { openDatabase, type DatabaseSource, type OpenDatabase, type Queries } from './database/open-database.js';
export { DATABASE, Transactions } from './database/transactions.js';
export { makeSeed } from './database/make-seed.js';
export { StorablePipe } from './errors/storable-pipe.js';
export { ServerLogger } from './errors/server-logger.js';
export { ProblemFilter } from './errors/problem.filter.js';
export { Refusal, type FieldFault } from './errors/refusal.js';
export { keptRefusal, problemToKeep, type KeptProblem } from './errors/kept-problem.js';
export { createValidationPipe } from './errors/validation-pipe.js';
export { PlatformModule } from './platform.module.js';
export * as tables from './database/tables/index.js';
export { openTableOrThrow, openWorkbookOrThrow, type OpenTable } from './files/open-table.js';
export { readRows } from './files/read-rows.js';
export { readTableOrThrow } from './files/read-table.js';
export { csvLines, spreadsheetTypes, writeSpreadsheet, type SpreadsheetType } from './files/spreadsheet.js';
export { Bulk } from './database/bulk.js';
export { CopyReader } from './database/copy-reader.js';
export { grouped } from './database/grouped.js';
export { Settings } from './settings/settings.js';
export { collectingSooner } from './work/collecting-sooner.js';
export { HeldWork, WorkLost } from './work/held-work.js';
export { keepIfHeldOrThrow } from './work/keep-if-held.js';
export { Leases } from './work/leases.js';
export { OwnThread } from './work/own-thread.js';
export { ThreadPool } from './work/thread-pool.js';
export { workerFile } from './work/worker-file.js';
export { WorkQueue } from './work/work-queue.js';
export { Outbox, type Letter } from './mail/outbox.js';
export { privateFolder } from './files/private-folder.js';
export { Upload, uploadedOrThrow } from './files/upload.js';
export { SecretBox } from './secrets/secret-box.js';
