export { GradeRowsModule } from './grade-rows.module.js';
export { GradeRowsRepository, type EarlierSeat } from './grade-rows.repository.js';
