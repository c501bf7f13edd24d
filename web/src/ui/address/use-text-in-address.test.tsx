import { act, screen, waitFor } from '@testing-library/react';
import { Link } from 'react-router';
import { expect, it } from 'vitest';
import { showAt } from '../../../test/show-at.fixture';
import { useTextInAddress } from './use-text-in-address';

function Search() {
  const [text, onType] = useTextInAddress('text');
  return (
    <>
      <input aria-label="Find" value={text} onChange={(event) => onType(event.target.value)} />
      <Link to="?text=Knots">Knots</Link>
    </>
  );
}
const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Find' });

it('loses no key however fast one types, and the address follows once', async () => {
  const { person, search } = showAt(<Search />, { address: 'courses?department=Sea' });
  await person.type(field(), 'tidal ecology and more than thirty keys');
  expect(field().value).toBe('tidal ecology and more than thirty keys');
  expect(search()).toBe('?department=Sea');
  await waitFor(() => expect(search()).toBe('?department=Sea&text=tidal+ecology+and+more+than+thirty+keys'));
  await person.clear(field());
  await waitFor(() => expect(search()).toBe('?department=Sea'));
});

it('shows what the address says from the start, and what a link changes it to', async () => {
  const { person } = showAt(<Search />, { address: 'courses?text=Small' });
  expect(field().value).toBe('Small');
  await act(() => person.click(screen.getByRole('link', { name: 'Knots' })));
  await waitFor(() => expect(field().value).toBe('Knots'));
});
