export { actionOfRows } from './action-of-rows.js';
export { refuseUnknownRows, rowFaults } from './row-faults.js';
