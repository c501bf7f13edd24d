export { CoursesModule } from './courses.module.js';
export { CoursesRepository } from './courses.repository.js';
export { valueOfCourse } from './course.thing.js';
export { placeOfCourse, type ScalePlace } from './scale-place.js';
export { PlacementsRepository } from './placements.repository.js';
export { ScalePlacing } from './scale-placing.service.js';
export { placeName, scaleSource, seekerOf } from './scale-source.js';
