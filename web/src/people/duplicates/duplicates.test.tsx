import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { DuplicateRecordReply, DuplicateReply, MergePreviewReply } from '#contract/people';
import { personCells } from '../../../test/people.fixture';
import { made, showAt, type Answers } from '../../../test/show-at.fixture';
import { DuplicatesPage } from './duplicates-page';

const record = (id: number, over: Partial<DuplicateRecordReply> = {}): DuplicateRecordReply => ({
  id,
  cells: personCells(`S${id}`, {
    familyName: 'Reed',
    givenName: 'Tamsin',
    yearGroup: '9',
    birthDate: '2010-05-17',
  }),
  school: 'Upper',
  isOfRoster: true,
  sections: 8,
  ...over,
});
const typed = record(9, { isOfRoster: false, sections: 1 });
const pair: DuplicateReply = { one: typed, other: record(4), reasons: ['same-birth-date'] };
const previewOf = (keptId: number): MergePreviewReply => ({
  previewId: `p${keptId}`,
  kept: keptId === 4 ? pair.other : typed,
  gone: keptId === 4 ? typed : pair.other,
  filled: keptId === 4 ? [] : ['email'],
  moves: { section: keptId === 4 ? 1 : 8 },
  shared: [],
  obstacles: [],
});
const preview = (body: unknown) => previewOf((body as { keptId: number }).keptId);
const show = (answers: Answers = {}, address = 'people') =>
  showAt(<DuplicatesPage schoolId={1} viewSwitch={null} />, {
    address,
    answers: { 'GET /schools/1/duplicates': [pair], 'POST /schools/1/duplicates/preview': preview, ...answers },
  });

describe('records that may be of one person', () => {
  it('are listed with what tells them apart and why, and looked at side by side', async () => {
    const { person, search } = show();
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe(
      '1 pair of records may be of one person.',
    );
    await person.click(screen.getByText('S9, 1 section'));
    expect(search()).toBe('?pair=9-4');
    expect(await screen.findByText(/^born on the same day, names alike: these two may be one person/)).toBeTruthy();
  });

  it('keep the roster’s one at first; chosen otherwise, another preview comes', async () => {
    const { person, sent } = show({}, 'people?pair=9-4');
    expect(await screen.findByText(/The record S9 goes. It brings along 1 section\./)).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'Keep this instead' }));
    expect(await screen.findByText(/The record S4 goes. It brings along 8 sections\./)).toBeTruthy();
    expect(screen.getByText('The one kept takes its e-mail.')).toBeTruthy();
    expect(screen.getByText('What a roster brings for it from now on counts for the one kept.')).toBeTruthy();
    const previews = sent.filter(({ request }) => request.endsWith('/preview')).map(({ body }) => body);
    expect(previews).toEqual([
      { keptId: 4, goneId: 9 },
      { keptId: 9, goneId: 4 },
    ]);
  });

  it('are merged as they were previewed, which can be undone', async () => {
    const { person, sent } = show({ 'POST /schools/1/duplicates/merge': made(12, { people: [] }) }, 'people?pair=9-4');
    await person.click(await screen.findByRole('button', { name: 'Merge' }));
    expect(await screen.findByText('Reed, Tamsin and Reed, Tamsin are one record now.')).toBeTruthy();
    expect(sent.find(({ request }) => request.endsWith('/merge'))!.body).toEqual({
      keptId: 4,
      goneId: 9,
      previewId: 'p4',
    });
    expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
  });

  it('that cannot be merged say why, and have no button', async () => {
    const obstacles = [{ code: 'work-in-both', section: 'Knots 2' }] as const;
    show({ 'POST /schools/1/duplicates/preview': { ...previewOf(4), obstacles } }, 'people?pair=9-4');
    const note = await screen.findByText('These two cannot be merged');
    expect(
      within(note.parentElement!).getByText('Both have work in Knots 2: move or remove it in one of them first.'),
    ).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Merge' })).toBeNull();
  });

  it('of whom there are none leave the page with words', async () => {
    show({ 'GET /schools/1/duplicates': [] });
    expect(await screen.findByText('Nobody is listed twice')).toBeTruthy();
  });
});
