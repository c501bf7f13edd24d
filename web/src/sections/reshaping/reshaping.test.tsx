import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { MergeSectionsPreviewReply, MovePreviewRowReply, SplitSectionPreviewReply } from '#contract/sections';
import { made, showAt, type Answers } from '../../../test/show-at.fixture';
import { MergeSectionsDialog } from './merge-sections-dialog';
import { SplitSectionDialog } from './split-section-dialog';

const today = dayOrThrow('2026-01-21');
const lastDay = dayOrThrow('2026-01-20');
const row = (over: Partial<MovePreviewRowReply> = {}): MovePreviewRowReply => ({
  enrollmentId: 5,
  student: 'Reed, Tamsin',
  from: 'Knots 1',
  grades: 1,
  scores: 4,
  left: 0,
  isReseated: false,
  obstacle: null,
  ...over,
});
const bodyOf = (sent: readonly { request: string; body: unknown }[], request: string) =>
  sent.findLast((each) => each.request === request)?.body;
const mainButton = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });

describe('merging sections', () => {
  const preview = (over: Partial<MergeSectionsPreviewReply> = {}): MergeSectionsPreviewReply => ({
    previewId: 'p1',
    into: 'Knots 2',
    lastDay,
    ending: ['Knots 1'],
    removed: [],
    brought: 0,
    rows: [row()],
    staying: 25,
    seats: 24,
    ...over,
  });
  const show = (answers: Answers) =>
    showAt(
      <MergeSectionsDialog
        schoolId={1}
        sections={[
          { id: 1, name: 'Knots 1', staying: 9 },
          { id: 2, name: 'Knots 2', staying: 16 },
        ]}
        today={today}
        onClose={() => undefined}
      />,
      { answers },
    );

  it('keeps the fullest unless another is chosen, says where there is not room, and merges as it was shown', async () => {
    const { person, sent } = show({
      'POST /schools/1/sections/merge/preview': preview(),
      'POST /schools/1/sections/merge': made(9, { moved: 9 }),
    });
    expect(await screen.findByText('25 students will sit in Knots 2, which has 24 seats.')).toBeTruthy();
    expect(bodyOf(sent, 'POST /schools/1/sections/merge/preview')).toEqual({
      sectionIds: [1],
      intoId: 2,
      enteredOn: '2026-01-21',
      teachersStay: true,
    });
    await person.click(screen.getByRole('checkbox', { name: /teaches Knots 1 will teach the other/ }));
    await expect.poll(() => mainButton('Merge').disabled).toBe(false);
    await person.click(mainButton('Merge'));
    expect(await screen.findByText('Knots 1 merged into Knots 2; 9 students moved.')).toBeTruthy();
    expect(bodyOf(sent, 'POST /schools/1/sections/merge')).toMatchObject({ previewId: 'p1', teachersStay: false });
  });

  it('says where no student is left to move', async () => {
    show({ 'POST /schools/1/sections/merge/preview': preview({ rows: [] }) });
    expect(await screen.findByText('No student is left to move.')).toBeTruthy();
  });

  it('says of a section in which nobody has sat yet that it is deleted, and who sits elsewhere from the beginning', async () => {
    show({
      'POST /schools/1/sections/merge/preview': preview({
        brought: 2,
        ending: [],
        removed: ['Knots 1'],
        rows: [row({ grades: 0, scores: 0, isReseated: true })],
      }),
    });
    expect(await screen.findByText(/Knots 1, where nobody has sat yet, is deleted\./)).toBeTruthy();
    expect(screen.getByText(/2 assignments are copied to Knots 2, for the students who bring scores\./)).toBeTruthy();
    expect(screen.getByRole('listitem').textContent).toBe(
      'Reed, Tamsinsits in Knots 2 from the beginning, as nothing stands in Knots 1 yet',
    );
    expect(screen.queryByText(/The last day of/)).toBeNull();
  });

  it('waits where somebody cannot come along, and where the server refuses the day', async () => {
    const { person } = show({
      'POST /schools/1/sections/merge/preview': (body) =>
        (body as { intoId: number }).intoId === 2
          ? preview({ rows: [row({ obstacle: { code: 'seated-there' } })] })
          : {
              type: 'about:blank',
              title: 'x',
              status: 422,
              code: 'fields-wrong',
              detail: 'Some fields are wrong.',
              errors: [{ field: 'enteredOn', detail: 'a day after Knots 2 began' }],
            },
    });
    expect(await screen.findByText('has, or had, a seat in Knots 2 already')).toBeTruthy();
    expect(mainButton('Merge').disabled).toBe(true);
    await person.selectOptions(screen.getByRole('combobox', { name: 'The section that stays' }), 'Knots 1, 9 students');
    expect(await screen.findByText(/a day after Knots 2 began/)).toBeTruthy();
    expect(mainButton('Merge').disabled).toBe(true);
  });
});

describe('splitting a section', () => {
  const preview = (over: Partial<SplitSectionPreviewReply> = {}): SplitSectionPreviewReply => ({
    previewId: 'p2',
    name: 'Knots 3',
    lastDay,
    rows: [row(), row({ enrollmentId: 6, student: 'Brine, Yara' })],
    assignments: 7,
    without: [],
    staying: 2,
    seats: null,
    ...over,
  });
  const show = (answers: Answers) =>
    showAt(
      <SplitSectionDialog
        schoolId={1}
        section={{
          id: 1,
          names: ['Knots 1'],
          apart: '',
          startsOn: dayOrThrow('2025-09-01'),
          endsOn: dayOrThrow('2026-06-12'),
        }}
        name="Knots 1"
        enrollmentIds={[5, 6]}
        staff={[
          { id: 7, names: ['Reed, Tamsin'], apart: 'T7' },
          { id: 8, names: ['Hale, Bo'], apart: 'T8' },
          { id: 9, names: ['Hale, Bo'], apart: 'T9' },
        ]}
        today={today}
        onClose={() => undefined}
      />,
      { answers },
    );

  it('asks who teaches the new one, tells teachers of one name apart, and shows what it gets', async () => {
    const { person, sent } = show({
      'POST /schools/1/sections/split/preview': preview({ without: ['calculation', 'scale'] }),
      'POST /schools/1/sections/split': made(9, { moved: 2 }),
    });
    const teacher = screen.getByRole('combobox', { name: 'Taught by' });
    expect(
      within(teacher)
        .getAllByRole('option')
        .map(({ textContent }) => textContent),
    ).toEqual(['choose a teacher', 'Reed, Tamsin', 'Hale, Bo (T8)', 'Hale, Bo (T9)']);
    expect(mainButton('Split').disabled).toBe(true);
    await person.selectOptions(teacher, 'Hale, Bo (T9)');
    expect(await screen.findByText(/Knots 3 gets 7 assignments; the last day in Knots 1 is/)).toBeTruthy();
    expect(screen.getByText('Knots 1 has a calculation and a scale of its own')).toBeTruthy();
    await person.click(mainButton('Split'));
    expect(await screen.findByText('Knots 3 is made, with 2 students of Knots 1.')).toBeTruthy();
    expect(bodyOf(sent, 'POST /schools/1/sections/split')).toEqual({
      sectionId: 1,
      enrollmentIds: [5, 6],
      teacherId: 9,
      seats: null,
      enteredOn: '2026-01-21',
      previewId: 'p2',
    });
  });

  it('takes no room for nobody', async () => {
    const { person } = show({ 'POST /schools/1/sections/split/preview': preview() });
    await person.selectOptions(screen.getByRole('combobox', { name: 'Taught by' }), 'Reed, Tamsin');
    await expect.poll(() => mainButton('Split').disabled).toBe(false);
    await person.type(screen.getByRole('textbox', { name: 'Seats' }), '0');
    expect(screen.getByText('from 1 to 999')).toBeTruthy();
    expect(mainButton('Split').disabled).toBe(true);
  });
});
