import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { auditRules, noExceptions, type RuleEffect, type RuleExceptions } from '#core/audit';
import type { AuditReply, RuleSettingsReply } from '#contract/audit';
import type { Problem } from '#contract/problems';
import { auditNow } from '../../test/audit-now.js';
import { blockingOf } from '../../test/settle-period.js';
import { openPeriod } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const read = async (school = 1, client = registrar) =>
  (await client.get<RuleSettingsReply>(`/audit/rules?school=${school}`)).body;
interface Said {
  readonly effect?: RuleEffect;
  readonly threshold?: number;
  readonly exceptions?: Partial<RuleExceptions>;
}
const set = async (of: 'school' | 'district', said: Record<string, RuleEffect | Said>, more: object = {}) => {
  const { schoolRevision, districtRevision } = await read();
  return registrar.send<RuleSettingsReply & Problem>(
    'PUT',
    of === 'school' ? '/audit/rules/1' : '/audit/shared-rules?school=1',
    {
      rules: Object.entries(said).map(([ruleId, each]) => {
        const {
          effect = null,
          threshold = null,
          exceptions,
        } = typeof each === 'string' ? { effect: each } : (each as Said);
        return { ruleId, effect, threshold, exceptions: { ...noExceptions, ...exceptions } };
      }),
      revision: of === 'school' ? schoolRevision : districtRevision,
      ...more,
    },
  );
};
const plain = { threshold: null, exceptions: noExceptions };
const inForce = ({ rules }: RuleSettingsReply, id: string) => rules.find((rule) => rule.id === id)!.inForce;
const audit = async () => (await auditNow(registrar, openPeriod)).body;
const found = ({ run }: AuditReply, id: string) => run!.findings.filter(({ ruleId }) => ruleId === id).length;

describe('what a rule does', () => {
  it('is as it comes, as the district says, or as the school says against it', async () => {
    const before = await read();
    expect(before.rules.map(({ id, inForce: effect }) => [id, effect])).toEqual(
      auditRules.map(({ id, severity }) => [id, severity]),
    );
    await set('district', { 'zero-posted': 'warns', 'grade-missing': 'informs' });
    const { body } = await set('school', { 'zero-posted': 'blocks' });
    expect([inForce(body, 'zero-posted'), inForce(body, 'grade-missing')]).toEqual(['blocks', 'informs']);
    const primary = await read(2);
    expect([inForce(primary, 'zero-posted'), inForce(primary, 'grade-missing')]).toEqual(['warns', 'informs']);
  });

  it('counts from the next audit on, which keeps what it did then', async () => {
    await set('district', {});
    await set('school', {});
    const first = await audit();
    const blocking = blockingOf(first).length;
    await set('school', {
      'percent-and-label-disagree': 'informs',
      'zero-posted': 'off',
      'override-without-reason': 'blocks',
    });
    const between = (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body;
    expect([blockingOf(between).length, found(between, 'zero-posted')]).toEqual([blocking, 1]);
    const after = await audit();
    expect(found(after, 'zero-posted')).toBe(0);
    expect(blockingOf(after)).toHaveLength(
      blocking - found(after, 'percent-and-label-disagree') + found(after, 'override-without-reason'),
    );
    const zero = after.rules.find(({ id }) => id === 'zero-posted');
    expect(zero).toMatchObject({ isOff: true, severity: 'informs' });
    // what is gone is not mended: the run before still says what it said
    expect(after.run!.sinceLastRun!.gone).toBe(1);
  });

  it('begins where the school says, and leaves alone what the school says; the certificate would say so', async () => {
    await set('school', {});
    const before = await audit();
    const own = before.run!.findings.filter(({ ruleId }) => ruleId === 'grade-missing');
    const { departments, courses, rules } = await read();
    expect(rules.find(({ id }) => id === 'many-overrides')!.measure).toMatchObject({ usual: 30, least: 1, most: 99 });
    const title = own[0]!.course!;
    const course = courses.find((each) => each.title === title)!;
    await set('school', {
      'grade-missing': { exceptions: { courses: [course.id] } },
      'unlike-sister-sections': { threshold: 1 },
      'last-date-needed': { exceptions: { departments } },
    });
    const after = await audit();
    expect(found(after, 'grade-missing')).toBe(own.filter((each) => each.course !== title).length);
    expect(found(before, 'unlike-sister-sections')).toBeGreaterThan(0);
    expect(found(after, 'unlike-sister-sections')).toBe(0);
    expect([found(before, 'last-date-needed') > 0, found(after, 'last-date-needed')]).toEqual([true, 0]);
    const { rows } = await server.database.pool.query<{ rule: object }>(
      `SELECT r AS rule FROM audit_runs a, jsonb_array_elements(a.rules) AS r
       WHERE a.id = ${after.run!.id} AND r ->> 'id' = 'grade-missing'`,
    );
    expect(rows[0]!.rule).toMatchObject({ threshold: null, exceptions: { departments: [], courses: [course.id] } });
    await set('school', {});
  });

  it('is a change like any other: in the history, undone by one step, and refused upon somebody else’s', async () => {
    const { schoolRevision } = await read();
    const { change } = await set('school', { 'grade-missing': 'off' });
    expect(inForce(await read(), 'grade-missing')).toBe('off');
    const stale = await set('school', {}, { revision: schoolRevision });
    expect([stale.status, stale.body.code]).toEqual([409, 'changed-meanwhile']);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    const after = await read();
    expect([inForce(after, 'grade-missing'), after.schoolRevision]).toEqual(['blocks', schoolRevision]);
  });

  it.each([
    [[{ ruleId: 'no-such-rule', effect: 'off', ...plain }], 'rules.0.ruleId'],
    [
      [
        { ruleId: 'zero-posted', effect: 'off', ...plain },
        { ruleId: 'zero-posted', effect: 'warns', ...plain },
      ],
      'rules.1.ruleId',
    ],
    [[{ ruleId: 'zero-posted', effect: 'loud', ...plain }], 'rules.0.effect'],
    [[{ ruleId: 'zero-posted', effect: null, ...plain, threshold: 10 }], 'rules.0.threshold'],
    [[{ ruleId: 'many-overrides', effect: null, ...plain, threshold: 100 }], 'rules.0.threshold'],
    [[{ ruleId: 'many-overrides', effect: null, ...plain, threshold: 1.234 }], 'rules.0.threshold'],
    [[{ ruleId: 'many-overrides', effect: null, threshold: null, exceptions: [] }], 'rules.0.exceptions'],
  ])('of %j is refused with the field', async (rules, field) => {
    const { status, body } = await set('school', {}, { rules });
    expect([status, body.errors[0]?.field]).toEqual([422, field]);
  });

  it('leaves no course alone that the school does not have, and keeps one that was removed since', async () => {
    const [{ other }] = (
      await server.database.pool.query<{ other: number }>('SELECT min(id) AS other FROM courses WHERE school_id <> 1')
    ).rows as [{ other: number }];
    const unknown = await set('school', { 'zero-posted': { exceptions: { courses: [other] } } });
    expect([unknown.status, unknown.body.errors[0]?.field]).toEqual([422, 'rules.0.exceptions.courses']);
    expect((await set('district', { 'zero-posted': { exceptions: { courses: [1] } } })).status).toBe(422);
    await server.database.pool.query(
      `INSERT INTO audit_settings (school_id, rules) VALUES (1, '{"zero-posted": {"exceptions": {"departments": [], "courses": [999999]}}}')
       ON CONFLICT (school_id) DO UPDATE SET rules = excluded.rules`,
    );
    expect(
      (await set('school', { 'zero-posted': { effect: 'warns', exceptions: { courses: [999_999] } } })).status,
    ).toBe(200);
    await set('school', {});
  });

  it('is for those who set up a school to say, and for those of the district to say for all', async () => {
    const teacher = await server.as('harun');
    expect((await teacher.get('/audit/rules?school=1')).status).toBe(403);
    const viewer = await server.as('sunniva');
    const request = { rules: [], revision: '' };
    expect((await viewer.send('PUT', '/audit/rules/1', request)).status).toBe(403);
    expect((await viewer.send('PUT', '/audit/shared-rules?school=1', request)).status).toBe(403);
    expect((await viewer.get('/audit/rules?school=1')).status).toBe(200);
  });
});

it('with everything switched off nothing is found, and the certificate says so', async () => {
  await set('school', Object.fromEntries(auditRules.map(({ id }) => [id, 'off'] as const)));
  const { run } = await audit();
  expect(run!.findings).toEqual([]);
  const { status, body } = await registrar.send<AuditReply>('POST', '/audit/certificates', {
    periodId: openPeriod,
    note: '',
  });
  expect([status, body.certificate!.broken]).toEqual([200, []]);
  const { rows } = await server.database.pool.query<{ off: number }>(
    `SELECT count(*)::int AS off FROM audit_certificates c, jsonb_array_elements(c.facts -> 'rules') AS r
     WHERE c.period_id = ${openPeriod} AND r ->> 'severity' = 'off'`,
  );
  expect(rows[0]!.off).toBe(auditRules.length);
  // Set otherwise, the certificate no longer says what would be found.
  await set('school', {});
  expect((await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.certificate!.broken).toEqual(['rules']);
});
