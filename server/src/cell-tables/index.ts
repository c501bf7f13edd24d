export { concernedBy, othersOf, saveRows } from './save-rows.js';
export { savedRows } from './saved-rows.js';
export {
  fileOfLines,
  fileOfRows,
  largestTableMegabytes,
  planOrRefuse,
  uploadedTableOrThrow,
  type UploadedRows,
} from './table-files.js';
