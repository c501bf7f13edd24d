import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssigneeReply, AuditReply, FindingReply } from '#contract/audit';
import type { Problem } from '#contract/problems';
import { auditNow } from '../../../test/audit-now.js';
import { openPeriod } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let found: readonly FindingReply[];
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  found = (await auditNow(registrar, openPeriod)).body.run!.findings;
});
afterAll(() => server.stop());

const assignees = async () => (await registrar.get<AssigneeReply[]>(`/audit/assignees?period=${openPeriod}`)).body;
/** As somebody says it who has just looked. */
const note = async (
  findings: readonly FindingReply[],
  comment: string,
  assignedTo: number | null,
  client = registrar,
) => {
  const now = await latest();
  const seen = findings.map((finding) => now.find(({ key }) => key === finding.key) ?? finding);
  return noteAsSeen(
    seen.map((each, at) => ({ ...each, ruleId: findings[at]!.ruleId })),
    comment,
    assignedTo,
    client,
  );
};
const noteAsSeen = (
  findings: readonly FindingReply[],
  comment: string,
  assignedTo: number | null,
  client = registrar,
) =>
  client.send<AuditReply & Problem>('PUT', '/audit/notes', {
    periodId: openPeriod,
    findings: findings.map(({ ruleId, enrollmentId, sectionId, courseId, itemId, noteRevision }) => ({
      ruleId,
      enrollmentId,
      sectionId,
      courseId,
      itemId,
      revision: noteRevision,
    })),
    comment,
    assignedTo,
  });
const latest = async () => (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run!.findings;
const noteOn = async ({ key }: FindingReply) => (await latest()).find((each) => each.key === key)!.note;

describe('a finding', () => {
  it('is given to somebody who may settle it, with a comment, and both stay from audit to audit', async () => {
    const all = await assignees();
    expect(all.map(({ name }) => name)).toContain('Morwenna Oake');
    const [first, second] = found;
    const { status, body } = await note([first!, second!], ' Rang the coast guard. ', all[0]!.id);
    expect([status, body.run!.findings.filter((each) => each.note !== null)].flat()).toHaveLength(3);
    const said = {
      comment: 'Rang the coast guard.',
      assignedTo: all[0],
      by: 'Morwenna Oake',
      at: expect.stringMatching(/^2026-01-21T10:4/),
    };
    expect(await noteOn(first!)).toEqual(said);
    await auditNow(registrar, openPeriod);
    expect(await noteOn(second!)).toEqual(said);
  });

  it('is somebody else’s by one change that one step takes back, and nobody’s once nothing is said', async () => {
    const [first] = found;
    const other = (await assignees()).at(-1)!;
    const { change } = await note([first!], '', other.id);
    expect(await noteOn(first!)).toMatchObject({ comment: '', assignedTo: other });
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect((await noteOn(first!))!.comment).toBe('Rang the coast guard.');
    await note([first!], '  ', null);
    expect(await noteOn(first!)).toBeNull();
  });

  it('of which somebody said something meanwhile keeps it: the second is refused, with all that was asked, and sees it', async () => {
    const seen = (await latest()).slice(3, 5);
    await note([seen[1]!], 'Mine came first.', null);
    const { status, body } = await noteAsSeen(seen, 'And I did not look.', null);
    expect([status, body.code]).toEqual([409, 'changed-meanwhile']);
    expect(await noteOn(seen[0]!)).toBeNull();
    expect(await noteOn(seen[1]!)).toMatchObject({ comment: 'Mine came first.' });
    const both = await Promise.all([note([seen[0]!], 'One', null), note([seen[0]!], 'Other', null)]);
    expect(both.map((each) => each.status).toSorted()).toEqual([200, 409]);
  });

  it.each([
    ['somebody who may not settle it', 'x', -1, 'assignedTo'],
    ['nobody there is', 'x', 999_999, 'assignedTo'],
    ['a comment that is too long', 'x'.repeat(1_001), null, 'comment'],
  ] as const)('is not given to %s', async (_who, comment, assignedTo, field) => {
    const { rows } = await server.database.pool.query<{ id: number }>(
      `SELECT person_id AS id FROM accounts WHERE username = 'harun'`,
    );
    const before = await noteOn(found[0]!);
    const { status, body } = await note([found[0]!], comment, assignedTo === -1 ? rows[0]!.id : assignedTo);
    expect([status, body.errors[0]!.field]).toEqual([422, field]);
    expect(await noteOn(found[0]!)).toEqual(before);
  });

  it('that the last audit did not find is refused with all that was asked, and viewers only look', async () => {
    const { status } = await note([found[2]!, { ...found[2]!, ruleId: 'zero-posted' }], 'Both', null);
    expect([status, await noteOn(found[2]!)]).toEqual([404, null]);
    const viewer = await server.as('sunniva');
    expect((await note([found[2]!], 'Seen', null, viewer)).status).toBe(403);
    expect((await viewer.get(`/audit/assignees?period=${openPeriod}`)).status).toBe(200);
  });

  it('goes out with the file', async () => {
    await note([found[2]!], 'Waits for the office, until Monday.', (await assignees())[0]!.id);
    const { body } = await registrar.get<Uint8Array>(`/audit/findings?period=${openPeriod}&type=csv`, 'bytes');
    const lines = new TextDecoder().decode(body).split('\r\n');
    expect(lines[0]).toMatch(/,Assigned to,Comment$/);
    expect(lines.filter((line) => line.endsWith('"Waits for the office, until Monday."'))).toHaveLength(1);
  });
});
