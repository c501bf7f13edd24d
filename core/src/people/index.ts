export { givenNamesOf } from './given-names-of.js';
export {
  cellsOfPerson,
  numberAlone,
  personFields,
  personHeadings,
  personKinds,
  personOfCells,
  personTable,
  type Person,
  type PersonCells,
  type PersonField,
} from './person-cells.js';
export { pronouns, type Pronoun } from './pronoun.js';
export { normalPassword, passwordFault, passwordLength, type PasswordFault } from './password-fault.js';
export { proposeUsername } from './propose-username.js';
export {
  densities,
  firstWeekdays,
  nameStyles,
  peopleOrders,
  themes,
  usualView,
  withViewChange,
  type ColumnLayout,
  type Density,
  type FirstWeekday,
  type NameStyle,
  type OwnView,
  type OwnViewChange,
  type PeopleOrder,
  type Theme,
} from './own-view.js';
export { listedName, nameAs, partsOfName, spokenName, waysToCall } from './person-name.js';
export { likelyDuplicates, type DuplicateReason } from './likely-duplicates.js';
export { mergePeople, mergeSeats, type FilledField, type MergeObstacle, type SharedSection } from './merge-people.js';
