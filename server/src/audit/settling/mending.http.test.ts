import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FindingReply, MendReply } from '#contract/audit';
import type { Problem } from '#contract/problems';
import type { SheetReply } from '#contract/posting';
import { auditNow } from '../../../test/audit-now.js';
import { changeOf, openPeriod } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let findings: readonly FindingReply[];
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  await audit();
});
afterAll(() => server.stop());

/** A minute later, so that what was saved before is seen. */
async function audit(): Promise<readonly FindingReply[]> {
  server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));
  const { body } = await auditNow(registrar, openPeriod);
  findings = body.run!.findings;
  return findings;
}
const ofRule = (id: string) => findings.filter(({ ruleId }) => ruleId === id);
const mend = (of: readonly FindingReply[], fingerprint?: string, client = registrar, takesBackSignOffs = false) =>
  client.send<MendReply & Problem>('POST', '/audit/mend', {
    periodId: openPeriod,
    findings: of.map(({ ruleId, enrollmentId, itemId }) => ({ ruleId, enrollmentId, itemId })),
    takesBackSignOffs,
    ...(fingerprint === undefined ? {} : { fingerprint }),
  });
const pathOf = ({ openSectionId, itemId }: FindingReply) => `/grade-sheets/${openSectionId}/${itemId}/${openPeriod}`;
const rowOf = async (finding: FindingReply) =>
  (await registrar.get<SheetReply>(pathOf(finding))).body.rows.find(
    ({ enrollmentId }) => enrollmentId === finding.enrollmentId,
  )!;

describe('mending', () => {
  it('tells first what it would set and sets nothing; then all alike as one change, which one step takes back', async () => {
    const alike = ofRule('percent-and-label-disagree');
    const before = await Promise.all(alike.map(rowOf));
    const { body: preview } = await mend(alike);
    expect([preview.isMended, preview.changes.length, preview.skipped]).toEqual([false, alike.length, []]);
    expect(await Promise.all(alike.map(rowOf))).toEqual(before);
    const carried = await mend(alike, preview.fingerprint);
    expect([carried.status, carried.body.isMended]).toEqual([200, true]);
    const after = await Promise.all(alike.map(rowOf));
    expect(after.map(({ mark }) => mark.label)).toEqual(preview.changes.map((each) => each.after.label));
    expect(after.map(({ mark }) => mark.percent)).toEqual(before.map(({ mark }) => mark.percent));
    await audit();
    expect(ofRule('percent-and-label-disagree')).toEqual([]);
    expect((await registrar.send('POST', `/changes/${carried.change}/undo`)).status).toBe(200);
    expect((await Promise.all(alike.map(rowOf))).map(({ mark }) => mark)).toEqual(before.map(({ mark }) => mark));
    await audit();
  });

  it.each([
    ['grade-on-withdrawn-student', { percent: null, label: null }],
    ['code-with-percent', { percent: null }],
    ['last-date-not-needed', { lastDate: null }],
  ])('of %s leaves nothing for its rule to find', async (id, expected) => {
    const own = ofRule(id);
    expect(own.length).toBeGreaterThan(0);
    const { body: preview } = await mend(own);
    expect((await mend(own, preview.fingerprint)).status).toBe(200);
    expect((await rowOf(own[0]!)).mark).toMatchObject(expected);
    await audit();
    expect(ofRule(id)).toEqual([]);
  });

  it('is refused where a grade was changed since the preview, and sets nothing of the others', async () => {
    const own = ofRule('override-without-reason').slice(0, 3);
    const { body: preview } = await mend(own);
    const row = await rowOf(own[2]!);
    await registrar.send('PUT', pathOf(own[2]!), { changes: [changeOf(row, { comment: 'Looked at.' })] });
    const first = await rowOf(own[0]!);
    const { status, body } = await mend(own, preview.fingerprint);
    expect([status, body.code, await rowOf(own[0]!)]).toEqual([409, 'mending-changed', first]);
  });

  it('skips what is signed off, what is right by now, and what gives nothing to go by, and says why', async () => {
    const [signed, right] = ofRule('override-without-reason').toSorted((a, b) => b.openSectionId! - a.openSectionId!);
    const alone = ofRule('last-date-needed').find(({ mark }) => mark?.code === 'INC')!;
    await registrar.send('PUT', `${pathOf(signed!)}/sign-off`, { note: '' });
    const other =
      ofRule('override-without-reason').find(({ openSectionId }) => openSectionId !== signed!.openSectionId) ?? right!;
    await registrar.send('PUT', pathOf(other), {
      changes: [changeOf(await rowOf(other), { overrideReason: 'As agreed.' })],
    });
    const { body } = await mend([signed!, other, alone]);
    expect(body.changes).toEqual([]);
    expect(body.skipped.map(({ why }) => why)).toEqual([
      'Its sheet is signed off.',
      'It is right by now.',
      'There is nothing to go by; open the grade.',
    ]);
  });

  it('takes the sign-offs of its sheets back where that is asked for, and one step brings both back', async () => {
    const own = ofRule('override-without-reason');
    const isSigned = async (finding: FindingReply) =>
      (await registrar.get<SheetReply>(pathOf(finding))).body.signedOff !== null;
    const signed = (await Promise.all(own.map(isSigned))).findIndex(Boolean);
    const before = await rowOf(own[signed]!);
    const { body: preview } = await mend([own[signed]!], undefined, registrar, true);
    expect([preview.signedOff, preview.changes.length]).toEqual([1, 1]);
    const { status, change } = await mend([own[signed]!], preview.fingerprint, registrar, true);
    expect([status, await isSigned(own[signed]!)]).toEqual([200, false]);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect([await isSigned(own[signed]!), (await rowOf(own[signed]!)).mark]).toEqual([true, before.mark]);
  });

  it('is for those who may post for anybody', async () => {
    const [finding] = ofRule('override-without-reason');
    expect((await mend([finding!], undefined, await server.as('ottilie'))).status).toBe(403);
    expect((await mend([finding!], undefined, await server.as('harun'))).status).toBe(403);
    expect((await mend([{ ...finding!, enrollmentId: 999_999 }])).status).toBe(404);
  });
});
