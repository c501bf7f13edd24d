import { afterAll, beforeAll, expect, it } from 'vitest';
import { formatDecimal } from '#core/numbers';
import { comesOutOfBook, itemKinds, itemSources, type BookItem } from '#core/report-items';
import { PeriodsRepository } from '#server/calendar';
import { PeriodViews } from '#server/period-view';
import { Transactions } from '#server/platform';
import { startTestServer, type TestServer } from '../../test/test-server.js';
import { GradeRowsRepository } from './grade-rows.repository.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const inDatabase = async <Row extends object>(text: string, values: unknown[] = []) =>
  (await server.database.pool.query<Row>(text, values)).rows;

it('what comes out of the grade book is the same to the database', async () => {
  const items = itemSources.flatMap((source) =>
    itemKinds.flatMap((kind) =>
      [null, 3].map((categoryId): BookItem => ({ id: 1, source, kind, categoryId, periodKind: 'quarter' })),
    ),
  );
  const asked = items.map(({ source, kind, categoryId }) => ({ source, kind, category_id: categoryId }));
  const rows = await inDatabase<{ comes: boolean }>(
    `SELECT coalesce(is_of_book(jsonb_populate_record(NULL::report_items, item)), false) AS comes
     FROM jsonb_array_elements($1) WITH ORDINALITY AS given (item, at) ORDER BY at`,
    [JSON.stringify(asked)],
  );
  expect(rows.map(({ comes }) => comes)).toEqual(items.map((item) => comesOutOfBook(item, { kind: 'quarter' })));
});

it('what is computed of every student is what the view over books and files says', async () => {
  const of = <Kind>(kind: new (...given: never[]) => Kind): Kind => server.application.get(kind, { strict: false });
  const sections = await inDatabase<{ id: number }>('SELECT id FROM sections ORDER BY id');
  let compared = 0;
  for (const { id } of await inDatabase<{ id: number }>('SELECT id FROM periods ORDER BY id')) {
    const found = await of(Transactions).snapshot(async (queries) => {
      const period = await of(PeriodsRepository).byIdOrThrow(queries, id);
      const { reported } = await of(PeriodViews).of(queries, period);
      const items = reported.map(({ item }) => item);
      return of(GradeRowsRepository).itemsOfSections(
        queries,
        items,
        period,
        sections.map((each) => each.id),
      );
    });
    const ours = [...found].flatMap(([itemId, rows]) =>
      rows.flatMap(({ enrollmentId, computed }) =>
        computed
          ? [
              [
                itemId,
                enrollmentId,
                formatDecimal(computed.percent),
                computed.level && formatDecimal(computed.level),
                computed.file,
              ],
            ]
          : [],
      ),
    );
    const theirs = await inDatabase<Record<string, unknown>>(
      `SELECT c.item_id, c.enrollment_id, trim_scale(c.percent)::text AS percent, trim_scale(c.level)::text AS level,
         CASE WHEN c.import_id IS NOT NULL THEN json_build_object('importId', c.import_id, 'importRow', c.import_row) END AS file
       FROM computed_percents c JOIN enrollments e ON e.id = c.enrollment_id JOIN periods p ON p.id = c.period_id
       WHERE c.period_id = $1 AND c.item_id = ANY($2) AND e.entered_on <= p.ends_on
         AND (e.withdrawn_on IS NULL OR e.withdrawn_on >= p.starts_on)`,
      [id, [...found.keys()]],
    );
    const inOrder = (values: readonly unknown[]) => values.map((value) => JSON.stringify(value)).toSorted();
    expect(inOrder(ours)).toEqual(inOrder(theirs.map((row) => Object.values(row))));
    compared += ours.length;
  }
  expect(compared).toBeGreaterThan(5_000);
});
