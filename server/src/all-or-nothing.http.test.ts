import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditReply } from '#contract/audit';
import type { LogCheckReply } from '#contract/log';
import type { SaveSheetReply, SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { FileImportReply } from '#contract/transfer';
import { changeOf, openPeriod, sheetNamed } from '../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

/** Lets every insert into a table fail while `work` runs, as a full disk would. */
async function whileFailing<T>(table: string, work: () => Promise<T>): Promise<T> {
  const { pool } = server.database;
  await pool.query(
    `CREATE FUNCTION fail() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'no space left'; END $$`,
  );
  await pool.query(`CREATE TRIGGER failing BEFORE INSERT ON ${table} EXECUTE FUNCTION fail()`);
  try {
    return await work();
  } finally {
    await pool.query(`DROP TRIGGER failing ON ${table}`);
    await pool.query('DROP FUNCTION fail()');
  }
}

const counts = async () => {
  const { rows } = await server.database.pool.query<Record<string, string>>(`
    SELECT (SELECT count(*) FROM grades) AS grades, (SELECT sum(version) FROM grades) AS versions, (SELECT count(*) FROM receipts) AS receipts,
           (SELECT count(*) FROM computed_grades) AS computed, (SELECT count(*) FROM file_row_outcomes) AS outcomes,
           (SELECT count(*) FROM audit_findings) AS findings, (SELECT count(*) FROM change_log) AS log`);
  return rows[0]!;
};

describe('when the database fails half way through', () => {
  it.each(['receipts', 'change_log'])('at %s, a save leaves nothing behind', async (table) => {
    const { path, sheet } = await sheetNamed(registrar, 'Shore Life 2');
    const changes = sheet.rows
      .filter(({ withdrawnOn }) => withdrawnOn === null)
      .map((row) => changeOf(row, { percent: '70', label: 'C-' }));
    const before = await counts();
    const { status, body } = await whileFailing(table, () => registrar.send<Problem>('PUT', path, { changes }));
    expect([status, body.code]).toEqual([500, 'unexpected']);
    expect(body.detail).toMatch(/^Nothing was saved\. The server noted it as [0-9a-f]{8}\.$/);
    expect(await counts()).toEqual(before);
    expect((await registrar.send('PUT', path, { changes: changes.slice(0, 1) })).status).toBe(200);
  });

  it('accepting a file writes none of its rows', async () => {
    const form = new FormData();
    form.append(
      'file',
      new Blob([new Uint8Array(readFileSync(new URL('../../demo/files/tidal-ecology-1.csv', import.meta.url)))]),
      'tidal.csv',
    );
    const { body: file } = await registrar.send<FileImportReply>('POST', `/file-imports?period=${openPeriod}`, form);
    const before = await counts();
    const accept = () =>
      registrar.send<FileImportReply>('POST', `/file-imports/${file.id}/accept`, {
        previewId: file.preview!.previewId,
      });
    expect((await whileFailing('computed_grades', accept)).status).toBe(500);
    expect(await counts()).toEqual(before);
    expect((await accept()).body.status).toBe('accepted');
  });

  it('an audit keeps no run without its findings', async () => {
    const before = await counts();
    const run = () => registrar.send<AuditReply>('POST', '/audit/runs', { periodId: openPeriod });
    expect((await whileFailing('audit_findings', run)).status).toBe(500);
    expect(await counts()).toEqual(before);
    expect((await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run).toBeNull();
  });
});

describe('many people at once', () => {
  it('save their own sheets; every save is kept and the log stays one chain', async () => {
    const { body: lists } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${openPeriod}`);
    const sheets = await Promise.all(
      lists[0]!.sheets.slice(20, 32).map(({ section }) => sheetNamed(registrar, section)),
    );
    const before = Number((await counts())['log']);
    const answers = await Promise.all(
      sheets.map(({ path, sheet }) => {
        const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
        return registrar.send<SaveSheetReply>('PUT', path, {
          changes: [changeOf(row, { comment: 'Saved at the same moment.' })],
        });
      }),
    );
    expect(answers.map(({ status }) => status)).toEqual(sheets.map(() => 200));
    const { body: check } = await registrar.get<LogCheckReply>('/log/check');
    expect(check).toEqual({ entries: before + sheets.length, isWhole: true, faultAt: null });
  });
});
