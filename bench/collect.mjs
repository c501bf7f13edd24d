// The end of a term: 200 sheets of some thirty grades saved at once, while 300 boards are open.
import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoPassword, prepareDemo } from '#demo';
import { createApplication, seedFile } from '#server/application';
import { Clock, makeSeed, openDatabase } from '#server/platform';
import { withPostgres } from '../scripts/postgres.mjs';

const [sheets, boards] = [200, 300];
/** Within this most saves are done, whoever else saves: longer is felt as waiting. */
const patience = 1500;
const now = new Date('2026-01-21T10:42:00Z');

/** The demo over HTTP on the embedded database. */
async function onWombat(work) {
  const folder = mkdtempSync(join(tmpdir(), 'wombat-bench-'));
  await makeSeed(seedFile);
  try {
    return await onDatabase({ kind: 'folder', folder, seedFile }, work);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The same on a PostgreSQL server. */
const onPostgres = (work) => withPostgres((url) => onDatabase({ kind: 'server', url }, work));

/** Two servers on one PostgreSQL, of which each knows nothing but the database of the other. */
const onTwoServers = (work) =>
  withPostgres((url) =>
    onDatabase({ kind: 'server', url }, (first) =>
      served(
        { kind: 'server', url },
        async () => undefined,
        (second) => work(first, second),
      ),
    ),
  );

/** The demo, nothing of it signed off. */
const onDatabase = (source, work) =>
  served(
    source,
    async (database) => {
      await prepareDemo(database);
      await database.pool.query('DELETE FROM sign_offs');
    },
    work,
  );

/** Signed in as its registrar. */
async function served(source, prepare, work) {
  const database = await openDatabase(source);
  await prepare(database);
  const clock = new Clock();
  clock.setTo(now);
  const application = await createApplication(database, clock);
  const server = await application.listen(0, '127.0.0.1');
  const base = `http://127.0.0.1:${server.address().port}/api`;
  const session = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ username: 'morwenna', password: demoPassword }),
  });
  const headers = {
    cookie: session.headers.getSetCookie()[0].split(';')[0],
    'x-csrf-token': (await session.json()).csrfToken,
    'content-type': 'application/json',
  };
  const get = async (path) => (await fetch(base + path, { headers })).json();
  const put = async (path, body) => {
    const answer = await fetch(base + path, { method: 'PUT', headers, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  try {
    return await work({ base, headers, get, put, database });
  } finally {
    await application.close();
    await database.close();
  }
}

/** Each sheet with another percentage for everybody, or with the one that is given, ready to be saved. */
async function savesOf({ get }, percent = null) {
  const lists = await get('/grade-sheets?period=4');
  const places = lists.flatMap(({ itemId, sheets: own }) =>
    own.map(({ sectionId }) => `/grade-sheets/${sectionId}/${itemId}/4`),
  );
  const saves = [];
  for (const path of places.slice(0, sheets)) {
    const { rows } = await get(path);
    const changes = rows
      .filter(({ withdrawnOn }) => withdrawnOn === null)
      .map(({ enrollmentId, version, mark }, at) => ({
        ...mark,
        percent: percent ?? (71 + (at % 20)).toFixed(1),
        label: 'C',
        code: null,
        lastDate: null,
        enrollmentId,
        version,
      }));
    saves.push({ path, changes });
  }
  return saves;
}

const quantile = (times, share) => times.toSorted((a, b) => a - b)[Math.ceil(times.length * share) - 1];

async function timed(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** How long as many saves would take, one after the other, on each core its share. */
async function aloneAfterEachOther(wombat) {
  const alone = [];
  for (const { path, changes } of (await savesOf(wombat, '62.5')).slice(0, 9))
    alone.push(await timed(() => wombat.put(path, { changes })));
  await wombat.database.pool.query('DELETE FROM receipts');
  return (quantile(alone, 0.5) * sheets) / availableParallelism();
}

/** Boards that ask again whenever they are told to. */
function openBoards({ base, headers }, count = boards) {
  const ended = new AbortController();
  let asked = 0;
  const watch = async () => {
    const stream = await fetch(`${base}/board/events`, { headers, signal: ended.signal });
    for await (const piece of stream.body)
      if (new TextDecoder().decode(piece).includes('event: changed')) {
        asked++;
        await (await fetch(`${base}/board?period=4`, { headers, signal: ended.signal })).arrayBuffer();
      }
  };
  const all = Array.from({ length: count }, () => watch().catch(() => undefined));
  return async () => {
    ended.abort();
    await Promise.all(all);
    return asked;
  };
}

/** Everybody's time for a save, all beginning at once, dealt out to servers; no grade is lost and none is saved twice. */
async function allAtOnce(wombat, saves, servers = [wombat]) {
  const { get, database } = wombat;
  const times = await Promise.all(
    saves.map(({ path, changes }, at) => timed(() => servers[at % servers.length].put(path, { changes }))),
  );
  for (const { path, changes } of [saves[0], saves.at(-1)]) {
    const { rows } = await get(path);
    for (const { enrollmentId, percent, version } of changes) {
      const row = rows.find((each) => each.enrollmentId === enrollmentId);
      if (Number(row.mark.percent) !== Number(percent) || row.version !== version + 1)
        throw new Error(`${path}: a grade is lost`);
    }
  }
  const { rows } = await database.pool.query('SELECT count(*)::int AS receipts FROM receipts');
  if (rows[0].receipts !== saves.length) throw new Error(`${rows[0].receipts} receipts of ${saves.length} saves`);
  return times;
}

export const measurements = [
  {
    what: `the 95th percentile of ${sheets} sheets saved at once on the embedded database, ${boards} boards open`,
    against: `${patience / 1000} seconds`,
    limit: 1,
    measure: () =>
      onWombat(async (wombat) => {
        const saves = await savesOf(wombat);
        const close = openBoards(wombat);
        await wombat.get('/board?period=4');
        const times = await allAtOnce(wombat, saves);
        await close();
        return { ours: quantile(times, 0.95), peer: patience };
      }),
  },
  {
    what: `the 95th percentile of ${sheets} sheets saved at once on PostgreSQL, ${boards} boards open`,
    against: 'one save after the other alone, dealt out to the cores',
    limit: 3,
    measure: () =>
      onPostgres(async (wombat) => {
        const peer = await aloneAfterEachOther(wombat);
        const saves = await savesOf(wombat);
        const close = openBoards(wombat);
        await wombat.get('/board?period=4');
        const times = await allAtOnce(wombat, saves);
        await close();
        return { ours: quantile(times, 0.95), peer };
      }),
  },
  {
    what: `the same through two servers on one PostgreSQL, ${boards / 2} boards open at each`,
    against: 'one save after the other alone, dealt out to the cores',
    limit: 3,
    measure: () =>
      onTwoServers(async (first, second) => {
        const peer = await aloneAfterEachOther(first);
        const saves = await savesOf(first);
        const closers = [first, second].map((each) => openBoards(each, boards / 2));
        await Promise.all([first, second].map(({ get }) => get('/board?period=4')));
        const times = await allAtOnce(first, saves, [first, second]);
        // Whoever watches at one server hears of what was saved at the other.
        for (const close of closers) if ((await close()) === 0) throw new Error('a board heard nothing');
        return { ours: quantile(times, 0.95), peer };
      }),
  },
  {
    what: 'a board of the demo after one sheet was saved',
    against: 'the same board before',
    limit: 3,
    measure: () =>
      onWombat(async (wombat) => {
        const [{ path, changes }] = await savesOf(wombat);
        const board = () => timed(() => wombat.get('/board?period=4'));
        const [after, before] = [[], []];
        let saved = changes;
        for (let round = 0; round < 9; round++) {
          const { rows } = await wombat.put(path, { changes: saved });
          const versions = new Map(rows.map(({ enrollmentId, version }) => [enrollmentId, version]));
          saved = saved.map((change) => ({
            ...change,
            version: versions.get(change.enrollmentId),
            percent: (60 + round).toFixed(1),
          }));
          after.push(await board());
          before.push(await board());
        }
        return { ours: quantile(after.slice(1), 0.5), peer: quantile(before.slice(1), 0.5) };
      }),
  },
];
