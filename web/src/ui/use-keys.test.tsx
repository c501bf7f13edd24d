import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import { useKeys } from './use-keys';

function Screen({ note }: { note: (key: string) => void }) {
  useKeys([
    { key: 'm', says: 'm', act: () => note('m') },
    { key: 'Enter', says: 'enter', act: () => note('enter') },
    { key: 'Ctrl+s', says: 'save', inFields: true, act: () => note('save') },
  ]);
  return (
    <>
      <input aria-label="Field" />
      <button onClick={() => note('pressed')}>Press</button>
      <div tabIndex={0}>List</div>
      <div role="dialog" aria-label="Over it">
        <button onClick={() => note('decided')}>Decide</button>
      </div>
    </>
  );
}

it.each<[string, () => HTMLElement, string, string[]]>([
  ['a list', () => screen.getByText('List'), 'm{Enter}', ['m', 'enter']],
  ['a field', () => screen.getByRole('textbox'), 'm{Enter}{Control>}s{/Control}', ['save']],
  ['a button of the page, as one that was just clicked', () => screen.getByText('Press'), 'm{Enter}', ['m', 'enter']],
  ['a dialog over the page', () => screen.getByText('Decide'), 'm{Enter}{Control>}s{/Control}', ['decided', 'save']],
])('the keys of a screen, pressed on %s', async (_where, at, keys, expected) => {
  const noted: string[] = [];
  render(<Screen note={(key) => noted.push(key)} />);
  at().focus();
  await userEvent.keyboard(keys);
  expect(noted).toEqual(expected);
});
