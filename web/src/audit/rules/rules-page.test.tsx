import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { noExceptions } from '#core/audit';
import type { RuleSettingReply, RuleSettingsReply, SetRuleReply } from '#contract/audit';
import { usualView } from '#core/people';
import { made, showAt, type Answers } from '../../../test/show-at.fixture';
import { RulesPage } from './rules-page';

const said = (more: Partial<SetRuleReply> = {}): SetRuleReply => ({
  effect: null,
  threshold: null,
  exceptions: noExceptions,
  ...more,
});
const rule = (id: string, summary: string, more: Partial<RuleSettingReply> = {}): RuleSettingReply => ({
  id,
  family: 'pattern',
  summary,
  why: 'It may matter.',
  scope: 'grade',
  own: 'warns',
  district: said(),
  school: said(),
  measure: null,
  inForce: 'warns',
  ...more,
});
const settings = (...rules: RuleSettingReply[]): RuleSettingsReply => ({
  rules,
  schoolRevision: 'of school',
  districtRevision: 'of district',
  departments: ['Crafts', 'Sea'],
  courses: [
    { id: 7, code: 'KNO1', title: 'Knots' },
    { id: 8, code: 'TID1', title: 'Tides' },
  ],
  nightly: null,
  nightlyRevision: 'of nights',
});
const zero = rule('zero-posted', 'Zero posted');
const late = rule('late', 'Posted late', { district: said({ effect: 'off' }), inForce: 'off' });
const signedInAs = (schoolId: number | null, role: 'registrar' | 'viewer' = 'registrar') => ({
  person: { personId: 1, name: 'Morwenna Lark', grants: [{ role, schoolId }] },
  view: usualView,
  timeZone: 'UTC',
  csrfToken: '',
});
const show = (answers: Answers = {}, session = signedInAs(null)) =>
  showAt(<RulesPage />, { answers: { 'GET /session': session, 'GET /audit/rules': settings(zero, late), ...answers } });
const choice = (name: string) => screen.findByRole('combobox', { name });
const isHeld = (name: string) => screen.getByRole<HTMLSelectElement>('combobox', { name }).disabled;

it('says how many are off and otherwise, and finds a rule by its words', async () => {
  const { person } = show();
  expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe(
    '2 rules look at every period; 1 switched off and 0 set to another severity.',
  );
  await person.type(screen.getByRole('searchbox'), 'zero');
  expect(screen.queryByText('Posted late')).toBeNull();
  await person.type(screen.getByRole('searchbox'), 'x');
  expect(screen.getByText('No such rule').tagName).toBe('P');
});

it.each([
  [
    'Zero posted, in this school',
    'off',
    'PUT /audit/rules/1',
    { ruleId: 'zero-posted', ...said({ effect: 'off' }) },
    { ruleId: 'late', ...said() },
    'of school',
  ],
  [
    'Zero posted, in all schools',
    'blocks',
    'PUT /audit/shared-rules',
    { ruleId: 'zero-posted', ...said({ effect: 'blocks' }) },
    { ruleId: 'late', ...said({ effect: 'off' }) },
    'of district',
  ],
])(
  '%s is set to %s at once, the others staying as they were looked at',
  async (name, effect, request, first, second, revision) => {
    const { person, sent } = show({ [request]: () => made(9, settings({ ...zero, inForce: 'off' }, late)) });
    const select = await choice(name);
    await expect.poll(() => isHeld(name)).toBe(false);
    await person.selectOptions(select, effect);
    await expect
      .poll(() => sent.find((each) => each.request === request)?.body)
      .toEqual({ rules: [first, second], revision });
    await expect
      .poll(() => screen.getByRole('heading', { level: 1 }).textContent)
      .toBe('2 rules look at every period; 2 switched off and 0 set to another severity.');
  },
);

it('is for looking where somebody may change nothing, or only their own school', async () => {
  show({}, signedInAs(1));
  await choice('Zero posted, in this school');
  await expect.poll(() => isHeld('Zero posted, in this school')).toBe(false);
  expect(isHeld('Zero posted, in all schools')).toBe(true);
});

describe('where a rule begins and what it leaves alone', () => {
  const measured = rule('many-overrides', 'Many overrides', {
    measure: { says: 'Most, in percent', usual: 30, least: 1, most: 99 },
    school: said({ threshold: 40, exceptions: { departments: ['Sea'], courses: [7, 99] } }),
  });

  it('is told beside it, by name', async () => {
    show({
      'GET /audit/rules': settings(measured, {
        ...zero,
        district: said({ exceptions: { departments: ['Crafts'], courses: [] } }),
      }),
    });
    expect(
      await screen.findByText('In this school it begins at 40 instead of 30 and leaves Sea and Knots alone.'),
    ).not.toBeNull();
    expect(screen.getByText('In all schools it leaves Crafts alone.')).not.toBeNull();
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
      '2 rules look at every period; 0 switched off and 0 set to another severity; 2 with a threshold or exceptions of its own.',
    );
  });

  it('is set in a dialog, that says what fits and keeps the rest of the rule as it was', async () => {
    const { person, sent } = show({
      'GET /audit/rules': settings(measured),
      'PUT /audit/rules/1': () => made(9, settings(measured)),
    });
    await person.click(await screen.findByRole('button', { name: 'More of Many overrides, in this school' }));
    const field = await screen.findByLabelText('Most, in percent');
    await person.clear(field);
    await person.type(field, '100');
    expect(screen.getByText('a number from 1 to 99, or nothing for 30')).not.toBeNull();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
    await person.clear(field);
    await person.type(field, '12,5');
    await person.click(screen.getByRole('button', { name: 'Look at Knots again' }));
    await person.selectOptions(screen.getByLabelText('A department more'), 'Crafts');
    await person.selectOptions(screen.getByLabelText('A course more'), '8');
    await person.click(screen.getByRole('button', { name: 'Save' }));
    await expect
      .poll(() => sent.find(({ request }) => request === 'PUT /audit/rules/1')?.body)
      .toEqual({
        rules: [
          {
            ruleId: 'many-overrides',
            effect: null,
            threshold: 12.5,
            exceptions: { departments: ['Sea', 'Crafts'], courses: [99, 8] },
          },
        ],
        revision: 'of school',
      });
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
  });

  it('of all schools names departments only, and a refusal stays in the dialog with what was typed', async () => {
    const detail = 'Somebody changed the rules of the audit meanwhile.';
    const { person } = show({
      'GET /audit/rules': settings(measured),
      'PUT /audit/shared-rules': { status: 409, title: 'Changed', detail, errors: [] },
    });
    await person.click(await screen.findByRole('button', { name: 'More of Many overrides, in all schools' }));
    expect(screen.queryByLabelText('A course more')).toBeNull();
    await person.type(screen.getByLabelText('Most, in percent'), '20');
    await person.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText(detail)).not.toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>('Most, in percent').value).toBe('20');
  });

  it('is nobody’s to set who may only look', async () => {
    show({}, signedInAs(null, 'viewer'));
    await choice('Zero posted, in this school');
    expect(screen.queryByRole('button', { name: /^More of/ })).toBeNull();
  });
});

it.each([
  ['02:30', { at: '02:30', revision: 'of nights' }],
  ['', { at: null, revision: 'of nights' }],
])('the nightly audit is set to “%s”', async (value, body) => {
  const nightly = value === '' ? { at: '23:10', setBy: 'Morwenna Lark' } : null;
  const { person, sent } = show({
    'GET /audit/rules': { ...settings(zero), nightly },
    'PUT /audit/nightly/1': () => made(9, settings(zero)),
  });
  const select = await choice('Nightly audit');
  expect(screen.queryByText(/, for Morwenna Lark\./) !== null).toBe(nightly !== null);
  await expect.poll(() => isHeld('Nightly audit')).toBe(false);
  await person.selectOptions(select, value);
  await expect.poll(() => sent.find(({ request }) => request === 'PUT /audit/nightly/1')?.body).toEqual(body);
});
