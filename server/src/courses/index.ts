export { CoursesModule } from './courses.module.js';
export { CoursesRepository } from './courses.repository.js';
export { valueOfCourse } from './course.thing.js';
