import { hash } from '@node-rs/argon2';
import { getTableName, type Table } from 'drizzle-orm';
import type pg from 'pg';
import { tables, type OpenDatabase } from '#server/platform';
import type { District } from './district.js';
import { demoAccounts, demoPassword } from './demo-accounts.js';
import { demoNow } from './schools.js';

/** In this order every row finds what it refers to. */
const order = [
  'schools',
  'periods',
  'breaks',
  'people',
  'scales',
  'scaleVersions',
  'bands',
  'specialCodes',
  'categories',
  'reportItems',
  'reportItemParts',
  'reportItemRules',
  'postingWindows',
  'courseDefaults',
  'courses',
  'reportItemExceptions',
  'sections',
  'scalePlacements',
  'calculationPolicies',
  'enrollments',
  'assignments',
  'scores',
  'calculatedGrades',
  'fileImports',
  'fileColumns',
  'filePieces',
  'fileRowOutcomes',
  'computedGrades',
  'grades',
  'signOffs',
  'stockComments',
  'registers',
  'absences',
] as const satisfies readonly (keyof District)[];

const rowsAtOnce = 10_000;

/** Writes the district into an empty database: everything or nothing. */
export async function loadDistrict({ pool }: OpenDatabase, district: District): Promise<void> {
  const accounts = await accountRows(district);
  const client = await pool.connect();
  try {
    await client.query('BEGIN');
    for (const name of order) await insertRows(client, tables[name], district[name]);
    await insertRows(client, tables.accounts, accounts);
    await insertRows(client, tables.accountRoles, roleRows(district));
    await insertRows(client, tables.settings, settings);
    await client.query('COMMIT');
    await client.query('VACUUM ANALYZE');
  } catch (error) {
    await client.query('ROLLBACK');
    throw error;
  } finally {
    client.release();
  }
}

const settings = [
  { key: 'clock-offset-ms', value: Date.parse(demoNow) - Date.now() },
  { key: 'time-zone', value: 'UTC' },
  { key: 'district', value: { sourcedId: 'port-elowen', name: 'Port Elowen' } },
  {
    key: 'gpa',
    value: {
      additions: { regular: '0', honours: '0.5', college: '1' },
      mostAddedCredits: '4',
      digits: 3,
      rounding: 'halfUp',
    },
  },
  {
    key: 'demo-people',
    value: demoAccounts.map(({ username, givenName, familyName, does }) => ({
      username,
      password: demoPassword,
      name: `${givenName} ${familyName}`,
      does,
    })),
  },
];

function accountRows({ accounts }: District) {
  return Promise.all(
    accounts.map(async ({ personId, username }) => ({
      id: personId,
      personId,
      username,
      passwordHash: await hash(demoPassword),
    })),
  );
}

function roleRows({ accounts }: District) {
  return accounts.flatMap(({ personId, grants }) => grants.map((grant) => ({ accountId: personId, ...grant })));
}

/** One statement for thousands of rows: they travel as one JSON parameter. */
async function insertRows(client: pg.PoolClient, table: Table, rows: readonly object[]): Promise<void> {
  if (rows.length === 0) return;
  const name = getTableName(table);
  const keys = Object.keys(rows[0]!);
  const columns = keys.map(snakeCase).join(', ');
  const lost = rows.flatMap((row) => Object.keys(row)).find((key) => !keys.includes(key));
  if (lost) throw new Error(`${name}: the first row has no ${lost}, so that of no row it would be written`);
  for (let from = 0; from < rows.length; from += rowsAtOnce) {
    const piece = rows
      .slice(from, from + rowsAtOnce)
      .map((row) => Object.fromEntries(Object.entries(row).map(([key, value]) => [snakeCase(key), value])));
    await client.query(
      `INSERT INTO ${name} (${columns}) SELECT ${columns} FROM jsonb_populate_recordset(NULL::${name}, $1)`,
      [JSON.stringify(piece)],
    );
  }
  if (keys.includes('id'))
    await client.query(`SELECT setval(pg_get_serial_sequence('${name}', 'id'), (SELECT max(id) FROM ${name}))`);
}

function snakeCase(name: string): string {
  return name.replace(/[A-Z0-9]+/g, (letters) => (/\d/.test(letters) ? letters : `_${letters.toLowerCase()}`));
}
