import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { RuleSettingReply, RuleSettingsReply } from '#contract/audit';
import { usualView } from '#core/people';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { RulesPage } from './rules-page';

const rule = (id: string, summary: string, more: Partial<RuleSettingReply> = {}): RuleSettingReply => ({
  id,
  family: 'pattern',
  summary,
  why: 'It may matter.',
  scope: 'grade',
  own: 'warns',
  district: null,
  school: null,
  inForce: 'warns',
  ...more,
});
const settings = (...rules: RuleSettingReply[]): RuleSettingsReply => ({
  rules,
  schoolRevision: 'of school',
  districtRevision: 'of district',
});
const zero = rule('zero-posted', 'Zero posted');
const late = rule('late', 'Posted late', { district: 'off', inForce: 'off' });
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
    { ruleId: 'zero-posted', effect: 'off' },
    { ruleId: 'late', effect: null },
    'of school',
  ],
  [
    'Zero posted, in all schools',
    'blocks',
    'PUT /audit/shared-rules',
    { ruleId: 'zero-posted', effect: 'blocks' },
    { ruleId: 'late', effect: 'off' },
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
