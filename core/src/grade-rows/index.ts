export { computedValue, type GradeRow } from './grade-row.js';
export { gradeRowsOf, type Fields, type GradeFields, type RowsByItem } from './grade-fields.js';
