import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { made, showAt } from '../../test/show-at.fixture';
import { StockCommentsDialog } from './stock-comments-dialog';

function open() {
  const onClose = vi.fn<() => void>();
  const view = showAt(<StockCommentsDialog schoolId={1} onClose={onClose} />, {
    answers: {
      'GET /stock-comments': { comments: ['{Name} works well.'], revision: 'r1' },
      'PUT /stock-comments': made(5, { comments: [], revision: 'r2' }),
    },
  });
  return { ...view, onClose };
}
const type = async (text: string) =>
  fireEvent.input(await screen.findByLabelText('Comments'), { target: { value: text } });
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });

describe('the stock comments of a school', () => {
  it('read as they will for a student, and are saved on the list that they began from', async () => {
    const { person, sent, onClose } = open();
    expect(await screen.findByText('Wren works well.')).toBeTruthy();
    await type('{Name} works well.\n\n  {They} {have} improved.  ');
    expect(screen.getByText('She has improved.')).toBeTruthy();
    await person.click(save());
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(sent.find(({ request }) => request === 'PUT /stock-comments')!.body).toEqual({
      comments: ['{Name} works well.', '{They} {have} improved.'],
      revision: 'r1',
    });
  });

  it.each([
    ['{Nmae} works.', '{Nmae} cannot be filled in.'],
    ['Good.\nGood.', '“Good.” is listed twice.'],
  ])('%j is refused with the reason', async (text, why) => {
    open();
    await type(text);
    expect(await screen.findByText(why)).toBeTruthy();
    expect(save().disabled).toBe(true);
  });
});
