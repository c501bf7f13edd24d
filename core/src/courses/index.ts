export { courseLengths, courseLevels, type Course, type CourseLength, type CourseLevel } from './course.js';
