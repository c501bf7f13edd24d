import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { AuditReply } from '#contract/audit';
import type { FileImportReply, FileRowsReply } from '#contract/files';
import { auditNow } from '../../test/audit-now.js';
import { changeOf, openPeriod, sheetNamed } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

async function read(name: string): Promise<FileImportReply> {
  const bytes = readFileSync(new URL(`../../../demo/files/${name}`, import.meta.url));
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return (await registrar.send<FileImportReply>('POST', `/file-imports?period=${openPeriod}`, form)).body;
}
const rowsOf = async (id: number) => (await registrar.get<FileRowsReply>(`/file-imports/${id}/rows`)).body.rows;
const findings = async () => (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run!.findings;

it('a row of a file says before it is accepted what an audit finds afterwards', async () => {
  const { path, sheet } = await sheetNamed(registrar, 'Tidal Ecology 1');
  const [first, second, third] = sheet.rows.filter(({ withdrawnOn }) => withdrawnOn === null);
  const changes = [
    changeOf(first!, { percent: '12', label: 'F' }),
    changeOf(second!, { percent: null, label: null, code: 'EXM' }), // whatever is computed
    changeOf(third!, { percent: '14', label: 'A' }), // wrong by itself: that is said already
  ];
  expect((await registrar.send('PUT', path, { changes })).status).toBe(200);

  const file = await read('tidal-ecology-1.csv');
  const rows = await rowsOf(file.id);
  const remarked = new Map(rows.filter(({ remarks }) => remarks.length > 0).map((row) => [row.name, row.remarks]));
  expect([...remarked.keys()].toSorted()).toEqual([first!.student, third!.student].toSorted());
  expect(remarked.get(first!.student)).toEqual([
    {
      severity: 'warns',
      rule: 'Override without a reason',
      says: expect.stringMatching(/^12\.00? F is posted, but .* is computed, and no reason is given\.$/),
    },
  ]);

  const accepted = await registrar.send('POST', `/file-imports/${file.id}/accept`, { planNumber: file.plan!.number });
  expect(accepted.status).toBe(200);
  await auditNow(registrar, openPeriod);
  const found = await findings();
  for (const [student, remarks] of remarked) {
    const sentences = found.filter((finding) => finding.student === student).map(({ sentence }) => sentence);
    expect(sentences).toEqual(expect.arrayContaining(remarks.map(({ says }) => says)));
  }
  const own = new Set([first!, second!, third!].map(({ student }) => student));
  const unforeseen = found
    .filter(
      ({ ruleId, student, section }) =>
        ruleId === 'override-without-reason' && own.has(student!) && section === 'Tidal Ecology 1',
    )
    .filter(({ student }) => !remarked.has(student!));
  expect(unforeseen).toEqual([]);
  expect((await rowsOf(file.id)).filter(({ remarks }) => remarks.length > 0)).toEqual([]);
});
