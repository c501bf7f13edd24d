export {
  cellsOfPerson,
  personFields,
  personHeadings,
  personKinds,
  personOfCells,
  personTable,
  type Person,
  type PersonCells,
  type PersonField,
} from './person-cells.js';
export { normalPassword, passwordFault, passwordLength, type PasswordFault } from './password-fault.js';
export { proposeUsername } from './propose-username.js';
export { likelyDuplicates, type DuplicateReason } from './likely-duplicates.js';
export { mergePeople, mergeSeats, type FilledField, type MergeObstacle, type SharedSection } from './merge-people.js';
