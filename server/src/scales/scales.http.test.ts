import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import type { BandBody, ScaleReply } from '#contract/scales';
import { changeOf, sheetNamed } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const scaleIn = async (period: number) => (await registrar.get<ScaleReply[]>(`/scales?period=${period}`)).body[0]!;
const withCutOff = (bands: readonly BandBody[], label: string, lowest: string) =>
  bands.map((band) => (band.label === label ? { ...band, lowest } : band));
const save = <Body>(scale: ScaleReply, bands: readonly BandBody[], basedOnVersion = scale.latestVersion) =>
  registrar.send<Body>('PUT', `/scales/${scale.id}`, { basedOnVersion, fromPeriodId: 4, bands });

it('shows the scale in force with the percents of the period', async () => {
  const scale = await scaleIn(4);
  expect(scale).toMatchObject({
    name: 'Letter scale',
    digits: 1,
    rounding: 'halfUp',
    latestVersion: 1,
    coursesUsingIt: 48,
  });
  expect(scale.bands.map(({ label }) => label)).toEqual(['A', 'A-', 'B+', 'B', 'B-', 'C+', 'C', 'C-', 'D+', 'D', 'F']);
  expect(scale.tallies.reduce((sum, { grades }) => sum + grades, 0)).toBeGreaterThan(3700);
});

describe('a scale that cannot be', () => {
  it.each<[string, (bands: readonly BandBody[]) => BandBody[], string, string]>([
    [
      'two equal cut-offs',
      (bands) => withCutOff(bands, 'B', '87.0'),
      'bands.3.lowest',
      'B and B+ both begin at 87.0; each cut-off may be used once.',
    ],
    [
      'a label twice',
      (bands) => bands.map((band, at) => (at === 1 ? { ...band, label: 'a' } : band)),
      'bands.1.label',
      'a stands twice; each label may be used once.',
    ],
    [
      'a bottom above 0',
      (bands) => withCutOff(bands, 'F', '10'),
      'bands',
      'The lowest band, F, begins at 10; values below have no label. Let it begin at 0.',
    ],
    [
      'a cut-off above 100',
      (bands) => withCutOff(bands, 'A', '101'),
      'bands.0.lowest',
      'A begins at 101; a cut-off lies from 0 to 100.',
    ],
    [
      'a word for a cut-off',
      (bands) => withCutOff(bands, 'A', 'high'),
      'bands.0.lowest',
      'a percent from 0 to 100 with at most two decimals, such as 89.5',
    ],
    [
      'a negative cut-off',
      (bands) => withCutOff(bands, 'F', '-1'),
      'bands.10.lowest',
      'a percent from 0 to 100 with at most two decimals, such as 89.5',
    ],
    ['no bands', () => [], 'bands', 'A scale needs at least one band.'],
  ])('%s is refused with the field named, and nothing is saved', async (_what, change, field, detail) => {
    const scale = await scaleIn(4);
    const { status, body } = await save<Problem>(scale, change(scale.bands));
    expect([status, body.errors]).toEqual([422, [{ field, detail }]]);
    expect((await scaleIn(4)).latestVersion).toBe(1);
  });
});

describe('a change of the scale', () => {
  it('is the next version from its period on; what was posted before keeps the version it was posted under', async () => {
    const scale = await scaleIn(4);
    const { sheet: before } = await sheetNamed(registrar, 'Shore Life 1');
    const { status, body: saved } = await save<ScaleReply>(scale, withCutOff(scale.bands, 'A-', '89.5'));
    expect([status, saved.version.number, saved.version.savedBy, saved.version.fromPeriod]).toEqual([
      200,
      2,
      'Morwenna Oake',
      'Quarter 2',
    ]);
    expect(saved.bands[1]).toMatchObject({ label: 'A-', lowest: '89.50' });
    expect((await scaleIn(3)).version.number).toBe(1);
    expect((await scaleIn(6)).version.number).toBe(2);

    const { path, sheet } = await sheetNamed(registrar, 'Shore Life 1');
    const posted = (rows: typeof sheet.rows) => rows.filter(({ version }) => version > 0);
    expect(posted(sheet.rows).map(({ mark, scaleVersion }) => [mark.label, scaleVersion])).toEqual(
      posted(before.rows).map(({ mark }) => [mark.label, 1]),
    );
    const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    await registrar.send('PUT', path, { changes: [changeOf(row, { percent: '89.5', label: 'A-' })] });
    const { sheet: after } = await sheetNamed(registrar, 'Shore Life 1');
    expect(after.rows.find(({ enrollmentId }) => enrollmentId === row.enrollmentId)!.scaleVersion).toBe(2);
  });

  it('made on an older version is refused, and says which one is saved', async () => {
    const scale = await scaleIn(4);
    const { status, body } = await save<Problem>(scale, withCutOff(scale.bands, 'A', '94'), 1);
    expect([status, body.code]).toEqual([409, 'scale-changed']);
    expect(body.detail).toContain('Version 2 is saved; your draft began from version 1.');
    expect((await scaleIn(4)).latestVersion).toBe(2);
  });
});
