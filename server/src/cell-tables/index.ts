export { actionOfRows } from './action-of-rows.js';
export { refuseUnknownRows, rowFaults } from './row-faults.js';
export { idsOfChanges, savedRows } from './saved-rows.js';
export {
  fileOfRows,
  largestTableMegabytes,
  planOrRefuse,
  uploadedTableOrThrow,
  type UploadedRows,
} from './table-files.js';
