import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { MovePreviewReply, MovePreviewRowReply } from '#contract/sections';
import { made, showAt, type Answers } from '../../../test/show-at.fixture';
import { MoveDialog } from './move-dialog';

const year = { startsOn: dayOrThrow('2025-09-01'), endsOn: dayOrThrow('2026-06-12') };
const section = (id: number, name: string) => [{ id, names: [name], apart: '', ...year }, name] as const;
const row = (over: Partial<MovePreviewRowReply> = {}): MovePreviewRowReply => ({
  enrollmentId: 5,
  student: 'Reed, Tamsin',
  from: 'Knots 1',
  grades: 1,
  scores: 4,
  left: 2,
  isReseated: false,
  obstacle: null,
  ...over,
});
const previewOf = (...rows: MovePreviewRowReply[]): MovePreviewReply => ({
  previewId: 'p1',
  to: 'Knots 2',
  lastDay: dayOrThrow('2026-01-20'),
  rows,
  staying: 21,
  seats: null,
});
const show = (answers: Answers) =>
  showAt(
    <MoveDialog
      schoolId={1}
      enrollmentIds={[5]}
      sections={[section(1, 'Knots 1'), section(2, 'Knots 2')]}
      today={dayOrThrow('2026-01-21')}
      onClose={() => undefined}
    />,
    { answers },
  );

describe('moving students to another section', () => {
  it('shows what goes along, and moves as it was shown, which can be undone', async () => {
    const { person, sent } = show({
      'POST /schools/1/moves/preview': previewOf(row()),
      'POST /schools/1/moves': made(9, { moved: 1 }),
    });
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Move' }).disabled).toBe(true);
    await person.selectOptions(screen.getByRole('combobox', { name: 'To' }), 'Knots 2');
    const list = await screen.findByRole('list', { name: 'What goes along' });
    expect(within(list).getByRole('listitem').textContent).toBe(
      'Reed, Tamsinfrom Knots 1 with 1 posted grade and 4 scores; 2 scores of other assignments left there',
    );
    await person.click(screen.getByRole('button', { name: 'Move' }));
    expect(await screen.findByText('1 student moved to Knots 2.')).toBeTruthy();
    expect(sent.find(({ request }) => request === 'POST /schools/1/moves')!.body).toEqual({
      enrollmentIds: [5],
      sectionId: 2,
      enteredOn: '2026-01-21',
      previewId: 'p1',
    });
    expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
  });

  it('moves nobody while something stands in the way of one, and says what', async () => {
    const obstacle = { code: 'seated-there' } as const;
    const { person } = show({ 'POST /schools/1/moves/preview': previewOf(row(), row({ enrollmentId: 6, obstacle })) });
    await person.selectOptions(screen.getByRole('combobox', { name: 'To' }), 'Knots 2');
    expect(await screen.findByText('has, or had, a seat in Knots 2 already')).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Move' }).disabled).toBe(true);
  });
});
