// A file of 50,000 rows: reading its table and deciding every row, against the CSV parser alone.
import Papa from 'papaparse';
import { planImport } from '#core/transfer';
import { median } from './support/median.mjs';

const count = 50_000;
const text = `Number,Name,Total\n${Array.from({ length: count }, (_each, at) => `S${at},"Carrow, Hale ${at}",${(at % 1000) / 10}`).join('\n')}\n`;
const roster = new Map(
  Array.from({ length: count }, (_each, at) => [
    `s${at}`,
    { enrollmentId: at, name: '', withdrawnOn: null, computed: null },
  ]),
);

export const measurements = [
  {
    what: 'parsing and deciding 50,000 rows of an export',
    against: 'parsing them',
    limit: 6,
    measure: async () => ({
      ours: await median(5, () => {
        const { data } = Papa.parse(text);
        planImport(
          data.slice(1).map(([id = '', , value = ''], at) => ({ row: at + 2, id, value })),
          { roster, others: new Map() },
        );
      }),
      peer: await median(5, () => Papa.parse(text)),
    }),
  },
];
