import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestServer, type TestServer } from '../../../test/test-server.js';
import { bringUpToDate, OtherTablesError } from './bring-up-to-date.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

/** The constraint that keeps a statement from being made, at once or when its transaction ends; undefined where none does. */
async function refusedBy(statement: string): Promise<string | undefined> {
  const client = await server.database.pool.connect();
  try {
    await client.query('BEGIN');
    await client.query(statement);
    await client.query('SET CONSTRAINTS ALL IMMEDIATE');
    return undefined;
  } catch (error) {
    return (error as { readonly constraint?: string }).constraint;
  } finally {
    await client.query('ROLLBACK');
    client.release();
  }
}

const first = (table: string) => `(SELECT min(id) FROM ${table})`;
const placement = (columns: string, values: string) =>
  `INSERT INTO scale_placements (kind, from_period_id, ${columns}) VALUES (${values})`;

describe('what core forbids, the tables hold out against too, whoever writes', () => {
  it.each<[string, string, string]>([
    ['a label beside a code', `UPDATE grades SET label = 'A', code = 'INC'`, 'grades_label_or_code'],
    ['a code that there is not', `UPDATE grades SET label = NULL, code = 'NONE'`, 'grades_code_special_codes_fk'],
    ['a code gone that is posted', `DELETE FROM special_codes WHERE code = 'INC'`, 'grades_code_special_codes_fk'],
    ['a negative percentage', 'UPDATE grades SET percent = -0.01', 'grades_percent_not_negative'],
    ['negative hours', 'UPDATE grades SET hours = -1', 'grades_hours_not_negative'],
    ['negative points', 'UPDATE scores SET points = -0.5', 'scores_points_not_negative'],
    ['a flag of no meaning', `UPDATE scores SET flag = 'lost'`, 'scores_flag_known'],
    ['an assignment below nothing', 'UPDATE assignments SET possible = -1', 'assignments_possible_not_negative'],
    ['a period that ends before it begins', `UPDATE periods SET ends_on = '2001-01-01'`, 'periods_days_in_order'],
    [
      'a section that ends before it begins',
      `UPDATE sections SET starts_on = '2026-01-02', ends_on = '2026-01-01'`,
      'sections_days_in_order',
    ],
    [
      'a window that closes before it opens',
      `UPDATE posting_windows SET closes_at = '2001-01-01'`,
      'posting_windows_in_order',
    ],
    ['a part that weighs nothing', 'UPDATE report_item_parts SET weight = 0', 'report_item_parts_weight_known'],
    ['three decimals', 'UPDATE report_items SET digits = 3', 'report_items_digits_known'],
    ['a tie by half', 'UPDATE scales SET cut_off_shift = 1, tied_to_id = NULL', 'scales_tie_is_whole'],
    ['a level scale without a top', 'UPDATE scales SET highest_level = NULL', 'scales_level_has_top'],
    ['a band below nothing', 'UPDATE bands SET lowest = -1', 'bands_lowest_not_negative'],
    [
      'a code that counts as nothing stated',
      `UPDATE special_codes SET as_part = 'counts', counts_as = NULL`,
      'special_codes_counts_as_something',
    ],
    [
      'a code that lapses into a label at no time',
      `UPDATE special_codes SET lapses_into = 'F', lapses_after_days = NULL`,
      'special_codes_lapse_is_whole',
    ],
    ['a placement at no school', placement('school_id', `'school', NULL, NULL`), 'scale_placements_one_place'],
    [
      'a placement at two places',
      placement('school_id, course_id', `'school', NULL, ${first('schools')}, ${first('courses')}`),
      'scale_placements_one_place',
    ],
    ['a role that there is not', `UPDATE account_roles SET role = 'guest'`, 'account_roles_role_known'],
    [
      'more credits earned than attempted',
      'UPDATE transcript_entries SET credits_earned = 99',
      'transcript_entries_credits_known',
    ],
  ])('%s', async (_case, statement, constraint) => {
    expect(await refusedBy(statement)).toBe(constraint);
  });

  it('two runs of one platform at work at a time', async () => {
    const begun = `INSERT INTO learning_platforms (school_id, name, address, client_id, client_secret)
        VALUES (${first('schools')}, 'Quillpond', 'http://127.0.0.1:1', 'x', 'x');
      INSERT INTO runs (platform_id, period_id, stage, state, mode, carries_work, carries_totals, is_nightly,
        started_by, started_at)
      SELECT ${first('learning_platforms')}, ${first('periods')}, 'plan', 'working', 'keep', true, true, false,
             ${first('people')}, now() FROM generate_series(1, 2)`;
    expect(await refusedBy(begun)).toBe('runs_one_working');
  });

  it('but not a list of codes that is written anew', async () => {
    const anew = `CREATE TEMP TABLE kept AS SELECT * FROM special_codes; DELETE FROM special_codes;
      INSERT INTO special_codes SELECT * FROM kept; DROP TABLE kept`;
    expect(await refusedBy(anew)).toBeUndefined();
  });
});

describe('tables of another version', () => {
  it('are told of in words, and left as they are', async () => {
    const { pool } = server.database;
    const change = (hash: string) =>
      pool.query<{ hash: string }>(
        'UPDATE drizzle.__drizzle_migrations AS new SET hash = $1 FROM drizzle.__drizzle_migrations AS old WHERE old.id = new.id RETURNING old.hash',
        [hash],
      );
    const { rows } = await change('of another version');
    await expect(bringUpToDate(pool, 'the folder here')).rejects.toThrow(
      new OtherTablesError(
        'The data in the folder here is of another version of Wombat, and this one cannot read it. Use the version that ' +
          'made it, or choose another place with WOMBAT_DATA or DATABASE_URL; the demo makes its data anew with --reset.',
      ),
    );
    await change(rows[0]!.hash);
    await expect(bringUpToDate(pool, 'the folder here')).resolves.toBeUndefined();
  });
});
