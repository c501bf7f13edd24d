export { CoursesModule } from './courses.module.js';
export { CoursesRepository, type KeptCourse } from './courses.repository.js';
export { PlacementsRepository } from './placements.repository.js';
export { placeName, scaleSource, seekerOf } from './scale-source.js';
