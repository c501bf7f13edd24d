import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { placeKey, type PlacementKind } from '#core/scales';
import type { CoursesReply } from '#contract/courses';
import type { Problem } from '#contract/problems';
import type { ReportItemsReply } from '#contract/report-items';
import { placeOf, type BandBody, type ScaleEffectReply, type ScaleReply, type ScalesReply } from '#contract/scales';
import type { CodesReply } from '#contract/codes';
import { changeOf, sheetNamed } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const scalesIn = async (period: number) => (await registrar.get<ScalesReply>(`/scales?period=${period}`)).body;
const named = ({ scales }: ScalesReply, name: string) => scales.find((scale) => scale.name === name)!;
const scaleIn = async (period: number) => named(await scalesIn(period), 'Letter scale');
const withCutOff = (bands: readonly BandBody[], label: string, lowest: string) =>
  bands.map((band) => (band.label === label ? { ...band, lowest } : band));
const save = <Body>(scale: ScaleReply, bands: readonly BandBody[], basedOnVersion = scale.latestVersion) =>
  registrar.send<Body>('PUT', `/scales/${scale.id}`, { basedOnVersion, fromPeriodId: 4, bands });

const undo = <Body>(change: number | null) => registrar.send<Body>('POST', `/changes/${change}/undo`);

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
      'a is listed twice; each label may be used once.',
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
      'A begins at 101; a cut-off is from 0 to 100.',
    ],
    [
      'a word for a cut-off',
      (bands) => withCutOff(bands, 'A', 'high'),
      'bands.0.lowest',
      'a percentage, or a level, with at most two decimals, such as 89.5',
    ],
    [
      'a negative cut-off',
      (bands) => withCutOff(bands, 'F', '-1'),
      'bands.10.lowest',
      'a percentage, or a level, with at most two decimals, such as 89.5',
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
    const { status, body } = await save<ScalesReply>(scale, withCutOff(scale.bands, 'A-', '89.5'));
    const saved = named(body, 'Letter scale');
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

  it('is undone with all its followers’ versions; not once grades are posted under it', async () => {
    const [scale, follower] = [await scaleIn(6), named(await scalesIn(6), 'Honours letters')];
    const bands = withCutOff(scale.bands, 'A', '94.5');
    const request = { basedOnVersion: scale.latestVersion, fromPeriodId: 6, bands };
    const { change } = await registrar.send('PUT', `/scales/${scale.id}`, request);
    expect(named(await scalesIn(6), 'Honours letters').latestVersion).toBe(follower.latestVersion + 1);
    expect((await undo(change)).status).toBe(200);
    expect([await scaleIn(6), named(await scalesIn(6), 'Honours letters')]).toEqual([scale, follower]);

    const open = await scaleIn(4);
    const saved = await save(open, withCutOff(open.bands, 'A-', '89.5'));
    const { path, sheet } = await sheetNamed(registrar, 'Shore Life 2');
    const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    await registrar.send('PUT', path, { changes: [changeOf(row, { percent: '89.6', label: 'A-' })] });
    const refused = await undo<Problem>(saved.change);
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      expect.stringMatching(/^Version \d+ is used by 1 posted grade\. Save another version/) as unknown,
    ]);
  });

  it('made on an older version is refused, and says which one is saved', async () => {
    const scale = await scaleIn(4);
    const { status, body } = await save<Problem>(scale, withCutOff(scale.bands, 'A', '94'), 1);
    expect([status, body.code]).toEqual([409, 'scale-changed']);
    expect(body.detail).toContain(`Version ${scale.latestVersion} is saved; your draft began from version 1.`);
    expect((await scaleIn(4)).latestVersion).toBe(scale.latestVersion);
  });
});

describe('what a draft would do', () => {
  const preview = <Body>(bands: readonly BandBody[], scaleId = 1) =>
    registrar.send<Body>('POST', `/scales/${scaleId}/preview`, { periodId: 4, bands });

  it('is worked out over the period’s real grades, and a scale as it is changes nothing', async () => {
    const { bands, tallies } = await scaleIn(4);
    const { status, body } = await preview<ScaleEffectReply>(bands);
    expect([status, body.changed, body.students, body.meanBefore]).toEqual([200, 0, [], body.meanAfter]);
    expect(body.grades).toBeGreaterThanOrEqual(tallies.reduce((sum, { grades }) => sum + grades, 0));
  });

  it('counts what the tallies say between the cut-offs, names the students, and raises their GPA', async () => {
    const { bands, tallies } = await scaleIn(4);
    const { body } = await preview<ScaleEffectReply>(withCutOff(bands, 'D', '58'));
    const between = tallies.filter(({ percent }) => Number(percent) >= 58 && Number(percent) < 60);
    expect(body.changed).toBe(between.reduce((sum, { grades }) => sum + grades, 0));
    expect(body.moves.filter(({ from, to }) => from !== to)).toEqual([{ from: 'F', to: 'D', grades: body.changed }]);
    expect([body.passAnew, body.failAnew]).toEqual([body.changed, 0]);
    expect(body.students.flatMap(({ changes }) => changes)).toHaveLength(body.changed);
    expect(Number(body.meanAfter)).toBeGreaterThan(Number(body.meanBefore));
  });
});

describe('the preview of a new label', () => {
  it('shows it where its cut-off puts it', async () => {
    const { bands } = await scaleIn(4);
    const best = { ...bands[0]!, label: 'A+', lowest: '97' };
    const request = { periodId: 4, bands: [...bands, best] };
    const { body } = await registrar.send<ScaleEffectReply>('POST', '/scales/1/preview', request);
    expect(body.bands.slice(0, 3).map(({ label }) => label)).toEqual(['A+', 'A', 'A-']);
    expect(body.moves.some(({ from, to }) => from === 'A' && to === 'A+')).toBe(true);
  });
});

describe('scales that follow another', () => {
  const honours = async () => named(await scalesIn(6), 'Honours letters');

  it('follow every version of it and cannot be edited themselves', async () => {
    const { latestVersion } = await honours();
    const letters = await scaleIn(6);
    await registrar.send('PUT', `/scales/${letters.id}`, {
      basedOnVersion: letters.latestVersion,
      fromPeriodId: 6,
      bands: withCutOff(letters.bands, 'A', '94'),
    });
    const followed = await honours();
    expect([followed.latestVersion, followed.bands[0]!.lowest, followed.tie]).toEqual([
      latestVersion + 1,
      '93.50',
      { toId: 1, toName: 'Letter scale', cutOffShift: '-0.50', pointsShift: '0.00' },
    ]);
    const { body } = await registrar.send<Problem>('PUT', `/scales/${followed.id}`, {
      basedOnVersion: followed.latestVersion,
      fromPeriodId: 6,
      bands: followed.bands,
    });
    expect([body.code, body.detail]).toEqual([
      'scale-tied',
      'Honours letters is tied to Letter scale: change that one, or untie it first.',
    ]);
  });

  it('are asked too: a version that one of them could not follow is refused, and names it', async () => {
    const scale = await scaleIn(6);
    const bands = scale.bands.map((band) => (band.label === 'D' ? { ...band, lowest: '0.3' } : band));
    const request = { basedOnVersion: scale.latestVersion, fromPeriodId: 6, bands };
    const { status, body } = await registrar.send<Problem>('PUT', '/scales/1', request);
    expect([status, body.errors]).toEqual([
      422,
      [{ field: 'followers', detail: expect.stringMatching(/^Honours letters: /) as unknown }],
    ]);
    expect((await scaleIn(6)).latestVersion).toBe(scale.latestVersion);
  });

  it('a version for an earlier period leaves the later one its own', async () => {
    const [earlier, later] = [await scaleIn(4), await scaleIn(6)];
    const { status } = await save(earlier, withCutOff(earlier.bands, 'C', '74'));
    expect([status, (await scaleIn(4)).version.number, (await scaleIn(6)).version.number]).toEqual([
      200,
      earlier.latestVersion + 1,
      later.version.number,
    ]);
  });

  it('would do to the open period what its preview says, and nothing by being looked at', async () => {
    const tie = { toId: 1, cutOffShift: '-0.5', pointsShift: '0' };
    const before = await scalesIn(6);
    const { status, body } = await registrar.send<ScaleEffectReply>('POST', '/scales/11/tie/preview', {
      periodId: 6,
      tie: { ...tie, cutOffShift: '-2' },
    });
    expect([status, body.changed]).toEqual([200, 0]);
    expect(await scalesIn(6)).toEqual(before);
  });

  it('cannot follow each other in a ring', async () => {
    const { revision } = await scaleIn(6);
    const request = { revision, name: 'Letter scale', tie: { toId: 11, cutOffShift: '0', pointsShift: '0' } };
    const { body } = await registrar.send<Problem>('PUT', '/scales/1/facts?period=6', request);
    expect([body.code, body.status]).toEqual(['tie-cycle', 422]);
  });
});

describe('a new scale', () => {
  const choices = ['Yes', 'Not yet'].map((label, at) => ({
    label,
    lowest: null,
    points: null,
    passes: at === 0,
    earnsCredit: at === 0,
    descriptor: label,
    isOff: false,
  }));
  const request = {
    name: 'Safety',
    kind: 'choice',
    isDistrictWide: false,
    highestLevel: null,
    tie: null,
    fromPeriodId: 4,
    bands: choices,
  };

  it('of choices needs no cut-offs, and goes again while nothing uses it', async () => {
    const { status, body, change } = await registrar.send<ScalesReply>('POST', '/schools/1/scales', request);
    const { id, kind, bands } = named(body, 'Safety');
    expect([status, kind, bands.map(({ label }) => label)]).toEqual([201, 'choice', ['Yes', 'Not yet']]);
    const removed = await registrar.send<ScalesReply>('DELETE', `/scales/${id}?period=4`);
    expect([removed.status, named(removed.body, 'Safety')]).toEqual([200, undefined]);
    expect((await undo(removed.change)).status).toBe(200);
    expect(named(await scalesIn(4), 'Safety')).toEqual(named(body, 'Safety'));
    expect((await undo<Problem>(removed.change)).body.code).toBe('moved-on');
    expect((await undo(change)).status).toBe(200);
    expect(named(await scalesIn(4), 'Safety')).toBeUndefined();
  });

  it.each([
    [{ ...request, name: 'letter SCALE' }, 'name', 'a name that no other scale of the school has'],
    [{ ...request, kind: 'colour' }, 'kind', 'one of percent, level, choice'],
    [{ ...request, kind: 'percent' }, 'bands.0.lowest', expect.stringContaining('Yes has no cut-off')],
  ])('is refused where it cannot be: %#', async (faulty, field, detail) => {
    const { status, body } = await registrar.send<Problem>('POST', '/schools/1/scales', faulty);
    expect([status, body.errors[0]]).toEqual([422, { field, detail }]);
  });

  it('that is in use says where, and what to do instead', async () => {
    const { status, body } = await registrar.send<Problem>('DELETE', '/scales/1?period=4');
    expect([status, body.code]).toEqual([409, 'in-use']);
    expect(body.detail).toMatch(
      /^Letter scale is used by [\d,]+ posted grades, 1 place .* Honours letters\. Use another/,
    );
  });
});

describe('where a scale is in force', () => {
  const nowhere = { department: null, level: null, courseId: null, sectionId: null };
  interface Asked {
    readonly kind: PlacementKind;
    readonly [field: string]: unknown;
  }
  /** Upon what is there now. */
  const place = async <Body>(asked: Asked, school = 1) => {
    const fromPeriodId = [6, 12, 23][school - 1]!;
    const body = { ...nowhere, isLocked: false, fromPeriodId, ...asked };
    const { placeRevisions } = await scalesIn(fromPeriodId);
    const revision = placeRevisions[placeKey(placeOf(school, body))] ?? null;
    return registrar.send<Body>('PUT', `/schools/${school}/scale-placements`, { revision, ...body });
  };

  it('a course takes it over, says so, and inherits again', async () => {
    const { courses } = await scalesIn(6);
    const { id } = courses.find(({ title }) => title === 'Shore Life')!;
    const scaleOf = async () => (await scalesIn(6)).courses.find((course) => course.id === id)!.scaleId;
    expect((await place({ kind: 'course', courseId: id, scaleId: 11 })).status).toBe(200);
    expect([await scaleOf(), (await scalesIn(6)).placements.at(-1)!.place]).toEqual([11, 'Shore Life']);
    const inherits = await place({ kind: 'course', courseId: id, scaleId: null });
    expect(await scaleOf()).toBe(1);
    expect([(await undo(inherits.change)).status, await scaleOf()]).toEqual([200, 11]);
    await place({ kind: 'course', courseId: id, scaleId: null });
  });

  it('is changed only from what was seen there', async () => {
    const request = { kind: 'department', department: 'Numbers and Charts', scaleId: 11 } as const;
    const seen = { revision: null };
    expect((await place({ ...request, ...seen })).status).toBe(200);
    const late = await place<Problem>({ ...request, ...seen, scaleId: null });
    expect([late.status, late.body.code]).toEqual([409, 'changed-meanwhile']);
    expect((await place({ ...request, scaleId: null })).status).toBe(200);
  });

  it('from a period on leaves what is before as it was, after a look at what it would do', async () => {
    const [now, then] = [await scalesIn(4), await scalesIn(6)];
    const request = {
      ...nowhere,
      isLocked: false,
      kind: 'school',
      scaleId: 11,
      fromPeriodId: 6,
    } as const;
    const preview = (body: object) =>
      registrar.send<ScaleEffectReply & Problem>('POST', '/schools/1/scale-placements/preview', {
        revision: null,
        ...body,
      });
    const { body: later } = await preview(request);
    expect([later.grades, later.changed]).toEqual([0, 0]);
    const { body: open } = await preview({ ...request, fromPeriodId: 4 });
    expect(open.changed).toBeGreaterThan(1000);
    expect((await place(request)).status).toBe(200);
    const there: unknown = expect.anything();
    expect(await scalesIn(4)).toEqual({ ...now, laterPlacements: there, placeRevisions: there });
    const after = await scalesIn(6);
    expect(after.courses.filter(({ scaleId }) => scaleId === 11).length).toBeGreaterThan(
      then.courses.filter(({ scaleId }) => scaleId === 11).length,
    );
    await place({ ...request, scaleId: 1 });
    expect((await scalesIn(6)).courses.map(({ scaleId }) => scaleId)).toEqual(
      then.courses.map(({ scaleId }) => scaleId),
    );
  });

  it('whose first version begins later does not count before, on whatever screen', async () => {
    const namesIn = async (period: number) => {
      const { body } = await registrar.get<CoursesReply>(`/schools/1/courses?period=${period}`);
      const { body: items } = await registrar.get<ReportItemsReply>(`/schools/1/report-items?period=${period}`);
      const { scales, courses } = await scalesIn(period);
      const shown = new Map(courses.map(({ id, scaleId }) => [id, scales.find((scale) => scale.id === scaleId)?.name]));
      return [
        body.courses.map(({ scale }) => scale?.name),
        items.courses.toSorted((a, b) => a.id - b.id).map(({ scaleName }) => scaleName),
        shown,
      ] as const;
    };
    for (const [period, honours] of [
      [4, 0],
      [6, 12],
    ] as const) {
      const [ofCourses, ofItems, shown] = await namesIn(period);
      const counts = [ofCourses, ofItems, [...shown.values()]].map(
        (names) => names.filter((name) => name === 'Honours letters').length,
      );
      expect(counts).toEqual([honours, honours, honours]);
    }
  });

  it('from a sealed period on is refused', async () => {
    const { status, body } = await place<Problem>({ kind: 'school', scaleId: 11, fromPeriodId: 3 });
    expect([status, body.code]).toEqual([409, 'period-sealed']);
  });

  it('under a lock nothing else comes into force', async () => {
    const { courses } = await scalesIn(12);
    const request = { kind: 'course' as const, courseId: courses[0]!.id, scaleId: 22, fromPeriodId: 13 };
    const { status, body } = await place<Problem>(request, 2);
    expect([status, body.detail]).toEqual([409, 'the school uses Four steps and locks it for everything below.']);
  });

  it('for the whole district it takes a scale of the district, which every school then sees', async () => {
    const { body: refused } = await place<Problem>({ kind: 'system', scaleId: 1 });
    expect(refused.errors).toEqual([
      { field: 'scaleId', detail: 'a scale of the whole district, as other schools would use it too' },
    ]);
    const { bands } = await scaleIn(3);
    const added = {
      name: 'District letters',
      kind: 'percent',
      isDistrictWide: true,
      highestLevel: null,
      tie: null,
      fromPeriodId: 3,
      bands,
    };
    const { body } = await registrar.send<ScalesReply>('POST', '/schools/1/scales', added);
    const { id } = named(body, 'District letters');
    expect((await place({ kind: 'system', scaleId: id })).status).toBe(200);
    const college = await scalesIn(24);
    expect([named(college, 'District letters').id, college.placements[0]!.place]).toEqual([id, 'the school']);
    expect(college.placements.some(({ kind, scaleId }) => kind === 'system' && scaleId === id)).toBe(true);
    expect(college.courses.every(({ scaleId }) => scaleId === 3)).toBe(true);
  });

  it('a place that is none is refused', async () => {
    const { body } = await place<Problem>({ kind: 'department', department: 'Astronomy', scaleId: 1 });
    expect(body.errors).toEqual([{ field: 'department', detail: 'a department of this school' }]);
  });
});

describe('the district’s codes', () => {
  const list = async () => (await registrar.get<CodesReply>('/codes')).body;
  const saveCodes = <Body>({ revision }: CodesReply, codes: readonly object[]) =>
    registrar.send<Body>('PUT', '/codes', { revision, codes });
  const bare = (codes: CodesReply['codes']) => codes.map(({ grades: _grades, ...code }) => code);

  it('hold at least what the trade knows, and change as a list', async () => {
    const before = await list();
    expect(before.codes.map(({ code }) => code)).toEqual([
      'INC',
      'EXM',
      'WDR',
      'NVA',
      'NAM',
      'FAM',
      'NCR',
      'PAS',
      'IPR',
      'VST',
    ]);
    const added = { ...bare(before.codes)[1]!, code: 'AUD', meaning: 'Auditor' };
    const { status, body } = await saveCodes<CodesReply>(before, [...bare(before.codes), added]);
    expect([status, body.codes.at(-1)!.code]).toEqual([200, 'AUD']);
    const { body: stale } = await saveCodes<Problem>(before, bare(before.codes));
    expect([stale.status, stale.code]).toEqual([409, 'changed-meanwhile']);
  });

  it.each([
    [{ code: 'A' }, 'code', 'A is also the label of a scale; what is typed could mean either. Choose another code.'],
    [{ lapsesInto: 'Z', lapsesAfterDays: 9 }, 'lapsesInto', 'Z is neither a label of a scale nor another code.'],
    [{ asPart: 'counts' }, 'countsAs', 'State the percentage exactly where the code counts as one.'],
    [{ asPart: 'vanishes' }, 'asPart', 'one of leaves, blocks, counts, missing'],
  ])('refuse %j with the field named', async (change, field, detail) => {
    const before = await list();
    const codes = bare(before.codes).map((code, at) => (at === 1 ? { ...code, ...change } : code));
    const { status, body } = await saveCodes<Problem>(before, codes);
    expect([status, body.errors]).toEqual([422, [{ field: `codes.1.${field}`, detail }]]);
  });

  it('that grades are posted with stay, and may be switched off', async () => {
    const { path, sheet } = await sheetNamed(registrar, 'Shore Life 1');
    const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    await registrar.send('PUT', path, { changes: [changeOf(row, { percent: null, label: null, code: 'PAS' })] });
    const before = await list();
    const without = bare(before.codes).filter(({ code }) => code !== 'PAS');
    const { body } = await saveCodes<Problem>(before, without);
    expect(body.detail).toBe(
      'PAS is used by 1 posted grade. Switch it off instead: posted grades keep it, and it cannot be posted any more.',
    );
    const off = bare(before.codes).map((code) => (code.code === 'PAS' ? { ...code, isOff: true } : code));
    expect((await saveCodes(before, off)).status).toBe(200);
  });
});
