import { screen } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { usualView, withViewChange, type OwnViewChange } from '#core/people';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { showCount, showDay } from '../ui/format';
import { showOwnView, useOwnView } from '../ui/own-view';
import { useInPeopleOrder } from '../ui/people-order';
import { useViewOnly } from '../ui/view-only';
import { PersonMenu } from './person-menu';

const people = [{ name: 'Brine, Yara' }, { name: 'Carrow, Ennis “Enno”' }];

function Page() {
  const inOrder = useInPeopleOrder();
  useOwnView();
  return (
    <>
      <PersonMenu person={{ personId: 7, name: 'Morwenna Hale', grants: [{ role: 'registrar', schoolId: null }] }} />
      <p data-testid="people">
        {inOrder(people, 'name')
          .map(({ name }) => name)
          .join('; ')}
      </p>
      <p data-testid="figures">
        {showDay('2026-03-09')}, {showCount(12_345)}
      </p>
    </>
  );
}

const shown = (what: 'people' | 'figures') => screen.getByTestId(what).textContent;
const kept = (body: unknown) => withViewChange(usualView, body as OwnViewChange);
const open = async (answers: Answers) => {
  const page = showAt(<Page />, { answers });
  await page.person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
  await page.person.click(screen.getByRole('menuitem', { name: 'Your view' }));
  return page;
};
const choose = (label: string) => screen.getByRole('combobox', { name: label });

beforeEach(() => showOwnView(usualView));

it('names, days and figures are written as somebody wants them, once it is saved', async () => {
  const { person, sent } = await open({ 'PUT /session/view': kept });
  expect(shown('people')).toBe('Brine, Yara; Carrow, Ennis “Enno”');
  await person.selectOptions(choose('People by'), 'given name');
  await person.selectOptions(choose('Names'), 'the name they prefer');
  expect(screen.getByText('Hal Carrow')).toBeTruthy();
  await person.selectOptions(choose('First day of the week'), 'Sunday');
  expect(shown('people')).toBe('Brine, Yara; Carrow, Ennis “Enno”');
  await person.click(screen.getByRole('button', { name: 'Save' }));
  await expect.poll(() => shown('people')).toBe('Enno Carrow; Yara Brine');
  expect(sent.find(({ request }) => request === 'PUT /session/view')!.body).toEqual({
    peopleOrder: 'given',
    names: 'preferred',
    firstWeekday: 0,
  });
  expect(useOwnView.getState()).toMatchObject({ firstWeekday: 0, density: 'compact' });
});

it('the language is chosen by typing, and shown by an example', async () => {
  const { person } = await open({ 'PUT /session/view': kept });
  await person.click(choose('Language and country'));
  await person.keyboard('germany');
  await person.click(await screen.findByRole('option', { name: 'German, Germany' }));
  expect(screen.getByText('Montag, 9. März 2026: 9.3.2026')).toBeTruthy();
  await person.click(screen.getByRole('button', { name: 'Save' }));
  await expect.poll(() => shown('figures')).toBe('9. März 2026, 12.345');
});

it('what is chosen stays in the dialog where the server cannot be reached', async () => {
  const { person } = await open({});
  await person.click(screen.getByRole('checkbox', { name: 'Show only sections that run today' }));
  await person.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('The server does not answer')).toBeTruthy();
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /run today/ }).checked).toBe(true);
  expect(useOwnView.getState().onlyRunning).toBe(false);
});

it('somebody who may only read still has a view and a password of their own, and signs out', async () => {
  useViewOnly.setState({ isViewOnly: true });
  const { person, sent } = await open({ 'DELETE /session': {} });
  expect(screen.getByRole('button', { name: 'Save' })).toBeTruthy();
  await person.click(screen.getByRole('button', { name: 'Cancel' }));
  await person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
  await person.click(screen.getByRole('menuitem', { name: 'Change password' }));
  expect(screen.getByRole('button', { name: 'Change it' })).toBeTruthy();
  await person.click(screen.getByRole('button', { name: 'Cancel' }));
  await person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
  await person.click(screen.getByRole('menuitem', { name: 'Sign out' }));
  await expect.poll(() => sent.map(({ request }) => request)).toContain('DELETE /session');
  useViewOnly.setState({ isViewOnly: false });
});

it('the page takes the whole screen and gives it back, where the browser can', async () => {
  let full: Element | null = null;
  const parts = {
    fullscreenEnabled: { get: () => true, configurable: true },
    fullscreenElement: { get: () => full, configurable: true },
    exitFullscreen: { value: () => Promise.resolve((full = null)), configurable: true },
  };
  Object.defineProperties(document, parts);
  document.documentElement.requestFullscreen = () => Promise.resolve(void (full = document.documentElement));
  const { person } = showAt(<Page />, { answers: {} });
  for (const [label, isFull] of [
    ['Full screen', true],
    ['Leave full screen', false],
  ] as const) {
    await person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
    await person.click(screen.getByRole('menuitem', { name: label }));
    expect(full !== null).toBe(isFull);
  }
  for (const name of Object.keys(parts)) Reflect.deleteProperty(document, name);
});
