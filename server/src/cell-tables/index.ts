export { actionOfRows } from './action-of-rows.js';
export { refuseUnknownRows, rowFaults } from './row-faults.js';
export {
  fileOfRows,
  largestTableMegabytes,
  planOrRefuse,
  uploadedTableOrThrow,
  type UploadedRows,
} from './table-files.js';
