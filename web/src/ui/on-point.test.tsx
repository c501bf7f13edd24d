import { render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { mostDecimals, OnPoint } from './on-point';

it.each([
  ['86.45', 2, '0ch'],
  ['86.4', 2, '1ch'],
  ['86', 2, '3ch'],
  ['−0,5', 2, '1ch'],
  ['86', 0, '0ch'],
  ['86.4462', 2, '0ch'],
])('%s in a column of %i decimals leaves room for what it lacks: %s', (text, decimals, room) => {
  render(<OnPoint text={text} decimals={decimals} />);
  expect(screen.getByText(text).style.paddingRight).toBe(room);
});

it('knows how many decimals a column needs', () => {
  expect([mostDecimals([]), mostDecimals(['1', null, '0.125', '2.5'])]).toEqual([0, 3]);
});
