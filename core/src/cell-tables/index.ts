export { emptyCells, faultsOfRow, foldCell, type CellFault, type Cells, type CellTable } from './cell-table.js';
export { planRows, type RowOutcome, type RowPlan } from './plan-rows.js';
