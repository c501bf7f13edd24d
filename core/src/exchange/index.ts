export { checkHead, listOf } from './check-rows.js';
export {
  exchangeFiles,
  exchangeVersions,
  extension,
  fieldsOf,
  filesOf,
  type ExchangeFile,
  type ExchangeRow,
  type ExchangeRows,
  type ExchangeVersion,
} from './exchange-format.js';
export { asMerged } from './as-merged.js';
export { betweenKeys, isTeacherOf, isTeaching, keyOf, kindOfPerson, orgsByUser, rolesByUser } from './held-fields.js';
export { asHeld, termsOf, together } from './fit-rows.js';
export {
  exchangeOutcomes,
  exchangeStatuses,
  isTaking,
  planExchange,
  type ExchangeOutcome,
  type ExchangeState,
  type ExchangeStatus,
  type PlannedExchangeRow,
} from './plan-exchange.js';
export { readManifest, type Manifest } from './read-manifest.js';
export { readScoreScale, readWholeBands, writeScoreScale, type WholeBand } from './score-scale.js';
export {
  flagOf,
  gradesOf,
  periodKindOf,
  resultFieldsOf,
  sectionNumberOf,
  sessionTypeOf,
  yearGroupOf,
} from './translate.js';
export { fieldsToKeep, withRosterFields, type IsHeld, type RosterFields } from './roster-fields.js';
export { schoolsUsing, type SchoolsUsing } from './schools-using.js';
export { teachersAfter } from './teachers-after.js';
