export {
  cellsOfEnrollment,
  enrollmentOfCells,
  enrollmentTable,
  seatHeadings,
  type EnrollmentCells,
  type EnrollmentDirectory,
  type EnrollmentField,
  type OwnEnrollment,
} from './enrollment-cells.js';
export { faultOfName, nameBook, type NameBook, type NamedThing } from './name-book.js';
export {
  cellsOfSection,
  dayIn,
  daysOfPeriod,
  daysOfSection,
  isOverfull,
  readSeats,
  sectionOfCells,
  sectionTable,
  type OwnSection,
  type SectionCells,
  type SectionDirectory,
  type SectionField,
} from './section-cells.js';
export { isReseated, moveObstacle, type MoveObstacle, type MoveTarget, type SeatToLeave } from './move-obstacle.js';
export { matchingAssignments } from './matching-assignments.js';
