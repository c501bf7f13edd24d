export { PlacementsModule } from './placements.module.js';
export { PlacementsRepository } from './placements.repository.js';
export { placeOfCourse, scalePlaceId } from './scale-place.js';
export { ScalePlacing } from './scale-placing.service.js';
export { placeName, scaleSource, seekerOf } from './scale-source.js';
