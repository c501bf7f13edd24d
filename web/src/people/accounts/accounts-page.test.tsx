import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { AccountReply, SentLinksReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import { made, showAt, showRoutes, type Answers } from '../../../test/show-at.fixture';
import { AccountsPage } from './accounts-page';
import { ChangePasswordDialog } from './change-password-dialog';
import { WelcomePage } from './welcome-page';

const passphrase = 'three boats and a lamp';
const accountOf = (personId: number, name: string, over: Partial<AccountReply> = {}): AccountReply => ({
  personId,
  name,
  email: `p${personId}@school.example`,
  state: 'none',
  username: null,
  grants: null,
  revision: null,
  linkUntil: null,
  lastSignInAt: null,
  ...over,
});
const active = {
  state: 'active',
  username: 'ina',
  grants: [{ role: 'teacher', schoolId: 1 }],
  revision: 'r1',
} as const;
const four = [
  accountOf(1, 'Holm, Ben'),
  accountOf(2, 'Kyle, Eve', { email: '' }),
  accountOf(3, 'Rook, Bo', { ...active, state: 'invited', username: 'bo', linkUntil: '2026-01-24T10:00:00Z' }),
  accountOf(4, 'Voe, Ina', { ...active, lastSignInAt: '2026-01-20T08:00:00Z' }),
];
const show = (answers: Answers = {}, address = 'accounts') =>
  showAt(<AccountsPage />, {
    address,
    answers: {
      'GET /schools': [{ id: 1, name: 'Upper School', shortName: 'Upper' }],
      'GET /schools/1/accounts': { accounts: four },
      ...answers,
    },
  });
const headline = async () => (await screen.findByRole('heading', { level: 1 })).textContent;
const bodyOf = (request: string, sent: readonly { request: string; body: unknown }[]) =>
  sent.findLast((each) => each.request === request)?.body;
const problem = (over: Partial<Problem>): Problem => ({
  type: 'urn:wombat:problem:fields-wrong',
  title: 'Some fields need correcting',
  status: 422,
  detail: 'The marked fields say what is wrong.',
  code: 'fields-wrong',
  errors: [],
  ...over,
});

describe('the accounts of a school', () => {
  it('are counted by how they stand, and narrowed to one of these', async () => {
    const { person, search } = show();
    expect(await headline()).toBe('1 of 4 staff can sign in; 1 is invited; 2 have no account.');
    await person.click(screen.getByRole('button', { name: '2' }));
    expect(search()).toBe('?state=none');
    const grid = screen.getByRole('grid', { name: 'Accounts of the staff' });
    expect(
      within(grid)
        .getAllByRole('row')
        .slice(1)
        .map((row) => row.textContent),
    ).toEqual(['Holm, Benp1@school.exampleno account', 'Kyle, Evenoneno account']);
  });

  it('whoever has none is invited at once, but for those without an address', async () => {
    const reply: SentLinksReply = { accounts: four, sent: 1, skipped: [{ personId: 2, reason: 'no-address' }] };
    const { person, sent } = show({ 'POST /schools/1/accounts/links': made(3, reply) });
    await person.click(await screen.findByRole('button', { name: 'Invite 1 person without an account' }));
    expect(bodyOf('POST /schools/1/accounts/links', sent)).toEqual({ personIds: [1] });
    expect(await screen.findByText('1 message written to the outbox.')).toBeTruthy();
    expect(await screen.findByText('1 person skipped: no e-mail address; write it under People.')).toBeTruthy();
  });

  it('one is looked at beside the list, gets one more role, and is let in no more; both can be undone', async () => {
    const { person, sent } = show({ 'PUT /schools/1/accounts/4': made(5, { accounts: four }) }, 'accounts?person=4');
    expect((await screen.findByText('Signs in as ina.')).tagName).toBe('P');
    expect(screen.getByRole('link', { name: /^Sign-ins of Voe, Ina/ }).getAttribute('href')).toBe(
      '/school/1/period/4/log?thing=account%20ina',
    );
    const teacher = { role: 'teacher', schoolId: 1 };
    expect((await screen.findByRole<HTMLButtonElement>('button', { name: 'Remove teacher, Upper' })).disabled).toBe(
      true,
    );
    await person.selectOptions(screen.getByRole('combobox', { name: 'Role' }), 'approver');
    await person.click(screen.getByRole('button', { name: 'Add' }));
    expect(bodyOf('PUT /schools/1/accounts/4', sent)).toEqual({
      revision: 'r1',
      grants: [teacher, { role: 'approver', schoolId: 1 }],
      isActive: true,
    });
    expect(await screen.findByText('Added: approver, Upper.')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Deactivate' }));
    expect(bodyOf('PUT /schools/1/accounts/4', sent)).toEqual({ revision: 'r1', grants: [teacher], isActive: false });
    expect(screen.getAllByRole('button', { name: 'Undo' }).length).toBeGreaterThan(0);
  });

  it.each([
    ['1', 'Has no account. An invitation goes to p1@school.example.', 'Invite', false],
    ['2', 'Has no account, and no e-mail address to invite to. Write it under People.', 'Invite', true],
    ['4', 'Signs in as ina.', 'Send a link for a new password', false],
  ])('of person %s says: %s', async (personId, says, act, isOff) => {
    show({}, `accounts?person=${personId}`);
    expect((await screen.findByText(says)).tagName).toBe('P');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: act }).disabled).toBe(isOff);
  });
});

describe('the page that a link leads to', () => {
  const routes = [
    { path: 'welcome/:token', element: <WelcomePage /> },
    { path: '*', element: <p>elsewhere</p> },
  ];
  const open = (answers: Answers) => showRoutes(routes, { address: 'welcome/abc', answers });
  const field = (name: string) => screen.findByLabelText<HTMLInputElement>(name);
  const link = { name: 'Ina Voe', username: 'ina', isFirst: true };

  it('greets by name, and takes a password only when it is long enough and typed the same twice', async () => {
    const { person, sent } = open({
      'POST /session/link': link,
      'PUT /session/link': problem({ errors: [{ field: 'password', detail: 'more that is your own' }] }),
    });
    expect((await screen.findByText('Welcome, Ina Voe')).tagName).toBe('H1');
    const choose = screen.getByRole<HTMLButtonElement>('button', { name: 'Choose it and sign in' });
    await person.type(await field('New password'), 'short');
    expect(screen.getByText(/^at least 15 signs/)).toBeTruthy();
    await person.type(await field('New password'), ' boats and lamps');
    await person.type(await field('The same again'), 'short boats and lampt');
    expect([screen.getByText('the same as above').tagName, choose.disabled]).toEqual(['P', true]);
    await person.type(await field('The same again'), '{Backspace}s{Enter}');
    expect(bodyOf('PUT /session/link', sent)).toEqual({ token: 'abc', password: 'short boats and lamps' });
    expect(await screen.findByText('more that is your own')).toBeTruthy();
  });

  it('says that a link is gone, and leads to the sign-in', async () => {
    open({ 'POST /session/link': problem({ status: 404, title: 'This link cannot be used', code: 'link-gone' }) });
    expect((await screen.findByText('This link cannot be used')).tagName).toBe('H1');
    expect(screen.getByRole('link', { name: 'Sign in' }).getAttribute('href')).toMatch(/\/sign-in$/);
    expect(screen.queryByRole('button', { name: 'Try again' })).toBeNull();
  });
});

it('one’s own password is changed after the present one; what is wrong stands beside its field', async () => {
  const { person, sent } = showAt(<ChangePasswordDialog name="Ina Voe" onClose={() => undefined} />, {
    answers: {
      'PUT /session/password': problem({ errors: [{ field: 'current', detail: 'your present password' }] }),
    },
  });
  await person.type(screen.getByLabelText('Present password'), 'not it');
  await person.type(screen.getByLabelText('New password'), passphrase);
  await person.type(screen.getByLabelText('The same again'), passphrase);
  await person.click(screen.getByRole('button', { name: 'Change it' }));
  expect(bodyOf('PUT /session/password', sent)).toEqual({ current: 'not it', password: passphrase });
  expect((await screen.findByText('your present password')).tagName).toBe('P');
});
