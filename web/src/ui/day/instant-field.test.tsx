import { screen } from '@testing-library/react';
import { useState } from 'react';
import { beforeEach, expect, it, vi } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { showAt } from '../../../test/show-at.fixture';
import { setDistrictZone } from '../format';
import { InstantField } from './instant-field';

beforeEach(() => setDistrictZone('America/Los_Angeles'));

function Shown({ start, onTake }: { start: string | null; onTake: (instant: string | null) => void }) {
  const [instant, setInstant] = useState(start);
  return (
    <InstantField
      label="closes"
      instant={instant}
      near={dayOrThrow('2026-01-30')}
      usualTime="17:00"
      onChange={(next) => {
        setInstant(next);
        onTake(next);
      }}
    />
  );
}
const day = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'closes, day' });
const time = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'closes, time' });

it('is shown and read in the district’s zone, on one clock', async () => {
  const onTake = vi.fn<(instant: string | null) => void>();
  const { person } = showAt(<Shown start="2026-01-24T01:00:00.000Z" onTake={onTake} />);
  expect([day().value, time().value]).toEqual(['Jan 23, 2026', '17:00']);
  await person.clear(time());
  await person.type(time(), '5:30 pm{Enter}');
  expect([onTake.mock.lastCall, time().value]).toEqual([['2026-01-24T01:30:00.000Z'], '17:30']);
});

it('begins at the usual time once there is a day, and ends with it', async () => {
  const onTake = vi.fn<(instant: string | null) => void>();
  const { person } = showAt(<Shown start={null} onTake={onTake} />);
  expect(time().disabled).toBe(true);
  await person.type(day(), '1/26{Enter}');
  expect(onTake.mock.lastCall).toEqual(['2026-01-27T01:00:00.000Z']);
  await person.clear(day());
  await person.tab();
  expect(onTake.mock.lastCall).toEqual([null]);
});

it('says what a time looks like, and takes none that is none', async () => {
  const onTake = vi.fn<(instant: string | null) => void>();
  const { person } = showAt(<Shown start="2026-01-24T01:00:00.000Z" onTake={onTake} />);
  await person.clear(time());
  await person.type(time(), 'noon');
  await person.tab();
  expect(screen.getByRole('alert').textContent).toBe('a time such as 17:00 or 5 pm');
  expect(onTake).not.toHaveBeenCalled();
});
