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
