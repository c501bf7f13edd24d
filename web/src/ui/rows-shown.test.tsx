import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { RowsShown } from './rows-shown';

const text = () => document.querySelector('p')!.textContent;
const props = { filter: '', isOlder: false, narrowBy: 'a file or an outcome', onShowAll: () => undefined };

it('says how many there are, and that only the first are here', () => {
  const { rerender } = render(<RowsShown {...props} read={{ rows: [1, 2], total: 2 }} />);
  expect(text()).toBe('All rows: 2');
  rerender(<RowsShown {...props} read={{ rows: [1, 2], total: 1_200 }} />);
  expect(text()).toBe('All rows: 1,200 – the first 2 are here; choose a file or an outcome');
});

it('tells no number of a filter whose rows are still on their way', () => {
  render(<RowsShown {...props} filter="refused" isOlder read={{ rows: [1, 2], total: 1_200 }} />);
  expect(text()).toBe('refused: …Show all');
});

it('leads back to all', async () => {
  const onShowAll = vi.fn<() => void>();
  render(<RowsShown {...props} filter="refused" read={{ rows: [], total: 0 }} onShowAll={onShowAll} />);
  await userEvent.click(screen.getByRole('button', { name: 'Show all' }));
  expect(onShowAll).toHaveBeenCalledOnce();
});
