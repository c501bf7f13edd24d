export { CoursesRepository } from './courses.repository.js';
