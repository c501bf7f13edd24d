// What comes from outside may be large: a workbook of a hundred thousand rows, a zip of the whole district. Nobody waits for
// them: they are read in threads of their own, and written a few thousand rows at a time.
import { monitorEventLoopDelay } from 'node:perf_hooks';
import ExcelJS from 'exceljs';
import { ExchangeService } from '#server/exchange';
import { readWorkbookInThread, writeWorkbook } from '#server/platform/files';
import { onDemo } from './support/demo-database.mjs';

const mostStall = 50;
/** Three threads are at work then, on machines of two cores. */
const mostImportStall = 250;
const rows = Array.from({ length: 100_000 }, (_none, row) => [
  `S${row}`,
  `Family, Given ${row}`,
  `Section ${row % 300}`,
  String(((row * 7) % 10_000) / 100),
  String(row % 100),
]);
let read;

/** A workbook is read once, by us and by a general library, and the stall meanwhile is ours. */
async function readOnce() {
  if (read) return read;
  const bytes = writeWorkbook('Grades', rows);
  const delay = monitorEventLoopDelay({ resolution: 1 });
  delay.enable();
  const began = performance.now();
  await readWorkbookInThread(bytes, 'grades.xlsx', null);
  const ours = performance.now() - began;
  delay.disable();
  const peerBegan = performance.now();
  await new ExcelJS.Workbook().xlsx.load(bytes);
  read = { ours, peer: performance.now() - peerBegan, stall: delay.max / 1e6 };
  return read;
}

/** The longest stall of a server that imports the zip of its own district, of whose scores half are gone. */
function importStall() {
  return onDemo(async (context, database) => {
    const exchange = context.get(ExchangeService, { strict: false });
    const { rows: people } = await database.pool.query('SELECT person_id FROM accounts ORDER BY id LIMIT 1');
    const actor = {
      personId: people[0].person_id,
      username: 'bench',
      name: 'Bench',
      grants: [{ role: 'registrar', schoolId: null }],
    };
    const zip = await exchange.export(actor, '1.2');
    await database.pool.query('DELETE FROM scores WHERE enrollment_id % 2 = 0');
    const delay = monitorEventLoopDelay({ resolution: 1 });
    delay.enable();
    const { id, previewId } = await exchange.read(actor, 'district.zip', zip);
    await exchange.accept(actor, id, previewId);
    while ((await exchange.byId(id)).status === 'accepting') await new Promise((resolve) => setTimeout(resolve, 100));
    delay.disable();
    return delay.max / 1e6;
  });
}

export const measurements = [
  {
    what: 'reading a workbook of 100,000 rows, its thread included',
    against: 'ExcelJS on the same workbook',
    limit: 1.5,
    measure: readOnce,
  },
  {
    what: 'longest stall of the server meanwhile: reading that workbook',
    against: `the limit of ${mostStall} ms`,
    limit: 1,
    measure: async () => ({ ours: (await readOnce()).stall, peer: mostStall }),
  },
  {
    what: 'longest stall of the server while it compares, plans and writes a zip of the demo district',
    against: `the limit of ${mostImportStall} ms`,
    limit: 1,
    measure: async () => ({ ours: await importStall(), peer: mostImportStall }),
  },
];
