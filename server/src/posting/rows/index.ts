export { GradeRowsRepository, type EarlierSeat } from './grade-rows.repository.js';
export { computedValue, type GradeRow } from './grade-row.js';
export type { RowsByItem } from './grade-fields.js';
