import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { showAt } from '../../test/show-at.fixture';
import { useInPeopleOrder } from '../ui/people-order';
import { setReader } from '../ui/reader';
import { PersonMenu } from './person-menu';
import { usePreferences } from './preferences';

const people = [{ name: 'Brine, Yara' }, { name: 'Carrow, Ennis' }];

function Page() {
  const inOrder = useInPeopleOrder();
  return (
    <>
      <PersonMenu person={{ personId: 7, name: 'Morwenna Hale', grants: [{ role: 'registrar', schoolId: null }] }} />
      <p data-testid="people">
        {inOrder(people, 'name')
          .map(({ name }) => name)
          .join('; ')}
      </p>
    </>
  );
}

const shown = () => screen.getByTestId('people').textContent;

it('the menu of a person sets how people are called and sorted, for that person alone', async () => {
  setReader(7);
  const { person } = showAt(<Page />);
  expect(shown()).toBe('Brine, Yara; Carrow, Ennis');
  await person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
  await person.click(screen.getByRole('menuitemradio', { name: 'Hale Carrow' }));
  await expect.poll(shown).toBe('Ennis Carrow; Yara Brine');
  setReader(8);
  await expect.poll(shown).toBe('Brine, Yara; Carrow, Ennis');
  setReader(7);
  await expect.poll(shown).toBe('Ennis Carrow; Yara Brine');
  setReader(0);
});

it('the menu sets the theme, and signs out', async () => {
  const { person, sent } = showAt(<Page />, { answers: { 'DELETE /session': {} } });
  await person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
  await person.click(screen.getByRole('menuitemradio', { name: 'Dark' }));
  expect(usePreferences.getState().theme).toBe('dark');
  usePreferences.setState({ theme: 'system' });
  if (!screen.queryByRole('menuitem', { name: 'Sign out' }))
    await person.click(screen.getByRole('button', { name: /Morwenna Hale/ }));
  await person.click(screen.getByRole('menuitem', { name: 'Sign out' }));
  await expect.poll(() => sent.map(({ request }) => request)).toContain('DELETE /session');
});
