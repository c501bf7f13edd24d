import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import type { AuditReply, FindingReply } from '#contract/audit';
import type { ChangeReply } from '#contract/changes';
import type { Problem } from '#contract/problems';
import type { ReadinessReply } from '#contract/transcripts';
import { auditNow } from '../../../test/audit-now.js';
import { blockingOf } from '../../../test/settle-period.js';
import { changeOf, openPeriod, quarterGrade, sheetNamed } from '../../../test/sheets.js';
import { demoInstant, signIn, startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const audit = async () => (await auditNow(registrar, openPeriod)).body;
const latest = async (client = registrar) => (await client.get<AuditReply>(`/audit?period=${openPeriod}`)).body;
const placeOf = ({ ruleId, enrollmentId, itemId, waiverRevision }: FindingReply) => ({
  ruleId,
  enrollmentId,
  itemId,
  revision: waiverRevision,
});
const waive = (findings: readonly FindingReply[], more: object = {}, client = registrar) =>
  client.send<AuditReply & Problem>('PUT', '/audit/waivers', {
    periodId: openPeriod,
    findings: findings.map(placeOf),
    reason: 'Agreed with the head of department.',
    until: null,
    ...more,
  });
const unsettled = async (client = registrar) =>
  (await client.get<ReadinessReply>(`/seals/readiness?period=${openPeriod}`)).body.steps.find(
    ({ code }) => code === 'settled',
  )!.count;
const waiverOf = async ({ key }: FindingReply, client = registrar) =>
  (await latest(client)).run!.findings.find((finding) => finding.key === key)?.waiver;
const ofRule = ({ run }: AuditReply, id: string) => run!.findings.filter(({ ruleId }) => ruleId === id);

describe('a finding that is let stand', () => {
  it('says by whom, why and until when; the seal does not wait for it; and one step takes it back', async () => {
    const reply = await audit();
    const blocking = blockingOf(reply).length;
    expect(await unsettled()).toBe(blocking);
    const [finding] = ofRule(reply, 'percent-and-label-disagree');
    const { status, change } = await waive([finding!], { until: '2026-02-27' });
    expect([status, await waiverOf(finding!)]).toEqual([
      200,
      {
        by: 'Morwenna Oake',
        at: expect.stringMatching(/^2026-01-21T10:42/),
        reason: 'Agreed with the head of department.',
        until: '2026-02-27',
        state: 'holds',
      },
    ]);
    expect(await unsettled()).toBe(blocking - 1);
    const { body: mine } = await registrar.get<ChangeReply[]>('/changes/mine');
    expect([mine[0]!.action, mine[0]!.why]).toEqual([
      'waive 1 finding (Percent and label disagree)',
      'Agreed with the head of department.',
    ]);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect([await waiverOf(finding!), await unsettled()]).toEqual([null, blocking]);
  });

  it('and all alike, are waived for one reason as one change, and counted again when that is ended', async () => {
    const reply = await latest();
    const alike = ofRule(reply, 'label-not-on-scale');
    const before = await unsettled();
    const { status, body } = await waive(alike);
    expect([status, alike.length, await unsettled()]).toEqual([200, 2, before - 2]);
    const ended = await registrar.send('POST', '/audit/waivers/end', {
      periodId: openPeriod,
      findings: ofRule(body, 'label-not-on-scale').map(placeOf),
    });
    expect([ended.status, await unsettled()]).toEqual([200, before]);
  });

  it('by one while another looks at it is not let stand again, nor ended, by who did not see that', async () => {
    const [finding] = ofRule(await audit(), 'label-not-on-scale');
    const { body } = await waive([finding!]);
    const again = await waive([finding!], { reason: 'Another reason.' }, await server.as('ottilie'));
    expect([again.status, again.body.code]).toEqual([409, 'changed-meanwhile']);
    const end = (place: object) =>
      registrar.send<Problem>('POST', '/audit/waivers/end', { periodId: openPeriod, findings: [place] });
    expect((await end(placeOf(finding!))).body.code).toBe('changed-meanwhile');
    expect((await waiverOf(finding!))?.reason).toBe('Agreed with the head of department.');
    const [seen] = ofRule(body, 'label-not-on-scale');
    expect((await end(placeOf(seen!))).status).toBe(200);
  });

  it('is open again when its last day is over', async () => {
    const [finding] = ofRule(await latest(), 'code-with-percent');
    const before = await unsettled();
    await waive([finding!], { until: '2026-01-22' });
    expect(await unsettled()).toBe(before - 1);
    server.clock.setTo(new Date('2026-01-23T09:00:00Z'));
    onTestFinished(() => server.clock.setTo(demoInstant));
    const later = await signIn(server.address, 'morwenna');
    expect([await unsettled(later), (await waiverOf(finding!, later))?.state]).toEqual([before, 'over']);
  });

  it('is open again when the grade says something else than what was waived, and stays waived when it does not', async () => {
    const reply = await latest();
    const [, finding] = ofRule(reply, 'percent-and-label-disagree');
    const { section, enrollmentId } = finding!;
    await waive([finding!]);
    const post = async (change: object) => {
      const { path, sheet } = await sheetNamed(registrar, section!, quarterGrade);
      if (sheet.signedOff) await registrar.send('DELETE', `${path}/sign-off`);
      const row = sheet.rows.find((each) => each.enrollmentId === enrollmentId)!;
      expect((await registrar.send('PUT', path, { changes: [changeOf(row, change)] })).status).toBe(200);
      server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));
      await audit();
    };
    await post({ comment: 'Seen.' });
    expect((await waiverOf(finding!))?.state).toBe('holds');
    await post({ percent: '71.3' });
    expect((await waiverOf(finding!))?.state).toBe('changed');
  });

  it.each<[string, object, string]>([
    ['no reason', { reason: '' }, 'reason'],
    ['a reason of two letters', { reason: ' ok ' }, 'reason'],
    ['a reason without end', { reason: 'x'.repeat(501) }, 'reason'],
    ['a last day that was yesterday', { until: '2026-01-20' }, 'until'],
    ['a last day that is none', { until: '2026-02-30' }, 'until'],
    ['nothing', { findings: [] }, 'findings'],
  ])('with %s is refused with the field named', async (_says, more, field) => {
    server.clock.setTo(demoInstant);
    const [finding] = ofRule(await latest(), 'last-date-needed');
    const { status, body } = await waive([finding!], more);
    expect([status, body.errors.map((each) => each.field)]).toEqual([422, [field]]);
    expect(await waiverOf(finding!)).toBeNull();
  });

  it('that the last audit did not find is refused, and those beside it are not waived either', async () => {
    const [finding] = ofRule(await latest(), 'last-date-needed');
    expect((await waive([finding!, { ...finding!, ruleId: 'zero-posted' }])).status).toBe(404);
    expect(await waiverOf(finding!)).toBeNull();
  });

  it('is for those who audit', async () => {
    const [finding] = ofRule(await latest(), 'last-date-needed');
    expect((await waive([finding!], {}, await server.as('sunniva'))).status).toBe(403);
    expect((await waive([finding!], {}, await server.as('harun'))).status).toBe(403);
  });
});
