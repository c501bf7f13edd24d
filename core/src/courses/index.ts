export { courseLengths, courseLevels, type Course, type CourseLength, type CourseLevel } from './course.js';
export {
  cellFault,
  cellsOfCourse,
  courseFields,
  courseHeadings,
  courseOfCells,
  courseTable,
  tidyCell,
  type CourseCells,
  type CourseField,
} from './course-cells.js';
export {
  factSource,
  inheritableFacts,
  withInheritedFacts,
  type CourseDefaults,
  type FactSource,
  type InheritableFact,
  type OwnCourse,
} from './inherited-facts.js';
export { sectionName } from './section-name.js';
