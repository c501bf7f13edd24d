import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { dayOrThrow, type Day } from '#core/calendar';
import { showAt } from '../../../test/show-at.fixture';
import { DayField } from './day-field';

const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Last day' });
const type = async (text: string) => {
  const person = userEvent.setup();
  await person.clear(field());
  await person.type(field(), text);
};

function Shown({ onTake, onFault }: { onTake: (day: Day) => void; onFault?: (isWrong: boolean) => void }) {
  const [day, setDay] = useState(dayOrThrow('2026-01-16'));
  return (
    <DayField
      label="Last day"
      day={day}
      onChange={(next) => {
        setDay(next);
        onTake(next);
      }}
      refuse={(next) => (next < '2025-11-10' ? 'not before its first day, 10 November' : undefined)}
      {...(onFault ? { onFault } : {})}
    />
  );
}

describe('a day that is typed', () => {
  it.each([
    ['2026-01-23', '2026-01-23'],
    ['23 jan', '2026-01-23'],
    ['19 dec', '2025-12-19'],
  ])('%s is taken as %s when the field is left', async (text, day) => {
    const onTake = vi.fn<(day: Day) => void>();
    const { person } = showAt(<Shown onTake={onTake} />);
    await person.click(field());
    await type(text);
    expect(onTake).not.toHaveBeenCalled();
    await person.keyboard('{Enter}');
    expect(onTake.mock.calls).toEqual([[day]]);
  });

  it('that lies beyond the other end stays in the field, with the reason beside it and said by a screen reader', async () => {
    const [onTake, onFault] = [vi.fn<(day: Day) => void>(), vi.fn<(isWrong: boolean) => void>()];
    const { person } = showAt(<Shown onTake={onTake} onFault={onFault} />);
    await person.click(field());
    await type('1 oct 2025');
    await person.tab();
    expect(screen.getByRole('alert').textContent).toBe('not before its first day, 10 November');
    expect([field().value, field().getAttribute('aria-describedby')]).toEqual([
      '1 oct 2025',
      screen.getByRole('alert').id,
    ]);
    expect([onTake.mock.calls, onFault.mock.lastCall]).toEqual([[], [true]]);
    await person.click(field());
    await person.keyboard('{Escape}');
    expect([screen.queryByRole('alert'), onFault.mock.lastCall]).toEqual([null, [false]]);
  });

  it.each([
    ['1/12/2026', 'Monday, January 12, 2026', 'or Dec 1, 2026?'],
    ['January 12', 'Monday, January 12, 2026', null],
    ['30/1', 'Friday, January 30, 2026', null],
  ])('%s says in words what was read, and what else it can mean', async (text, says, otherwise) => {
    const onTake = vi.fn<(day: Day) => void>();
    const { person } = showAt(<Shown onTake={onTake} />);
    await person.click(field());
    await type(text);
    expect(screen.getByRole('status').textContent).toContain(says);
    const other = screen.queryByRole('button', { name: /^or / });
    expect(other?.textContent ?? null).toBe(otherwise);
    if (!other) return;
    await person.click(other);
    expect(onTake.mock.calls).toEqual([['2026-12-01']]);
  });

  it('is chosen from a calendar that opens at the day that stands there', async () => {
    const onTake = vi.fn<(day: Day) => void>();
    const { person } = showAt(<Shown onTake={onTake} />);
    await person.click(screen.getByRole('button', { name: 'Last day: choose from a calendar' }));
    expect(screen.getByRole('grid', { name: /January 2026/ })).toBeTruthy();
    await person.click(screen.getByRole('button', { name: /January 23/ }));
    expect(onTake.mock.calls).toEqual([['2026-01-23']]);
  });

  it('that is none says what one looks like, and takes nothing', async () => {
    const onTake = vi.fn<(day: Day) => void>();
    const { person } = showAt(<Shown onTake={onTake} />);
    await person.click(field());
    await type('soon');
    await person.tab();
    expect(screen.getByRole('alert').textContent).toBe('a day such as 1/16/2026 or Jan 16, 2026');
    expect(onTake).not.toHaveBeenCalled();
  });
});
