import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { PeopleReply, PersonRowReply } from '#contract/people';
import { personCells, personOf } from '../../test/people.fixture';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { peopleDrafts } from './people-drafts';
import { PeoplePage } from './people-page';

const three = [
  personOf(1, personCells('S1', { familyName: 'Skerry' }), { isOfRoster: true }),
  personOf(2, personCells('S2', { familyName: 'Rook', givenName: 'Bo', yearGroup: '9' })),
  personOf(3, personCells('', { familyName: 'Holm', kind: 'staff', yearGroup: '', email: 'ben@school.example' })),
];
const show = (people: readonly PersonRowReply[], answers: Answers = {}, address = 'people') =>
  showAt(<PeoplePage />, {
    address,
    answers: {
      'GET /schools/1/people': { people } satisfies PeopleReply,
      'GET /schools/1/term-line': termLineOf(),
      ...answers,
    },
  });
const headline = async () => (await screen.findByRole('heading', { level: 1 })).textContent;
const rows = () => within(screen.getByRole('grid')).getAllByRole('row').slice(1);
const cell = (row: number, column: number) => within(rows()[row]!).getAllByRole('gridcell')[column]!;
const names = () => rows().map((_row, at) => cell(at, 2).textContent);
const saveOf = (sent: readonly { request: string; body: unknown }[]) =>
  sent.find(({ request }) => request === 'PUT /schools/1/people')?.body;

beforeEach(() => peopleDrafts.discard(1));

describe('the people of a school', () => {
  it('are counted, and narrowed by what the figures say, by year and by text', async () => {
    const { person, search } = show(three);
    expect(await headline()).toBe('Upper School has 2 students and 1 staff.');
    await person.click(screen.getByRole('button', { name: '1' }));
    expect([search(), names()]).toEqual(['?kind=staff', ['Holm']]);
    await person.selectOptions(screen.getByRole('combobox', { name: 'Kind of people shown' }), 'everybody');
    await person.selectOptions(screen.getByRole('combobox', { name: 'Year shown' }), 'of year 9');
    expect(names()).toEqual(['Rook']);
    await person.selectOptions(screen.getByRole('combobox', { name: 'Year shown' }), 'of every year');
    await person.type(screen.getByRole('searchbox'), 'skerry, a');
    expect(names()).toEqual(['Skerry']);
  });

  it('say who keeps them, and what the next import of a roster does', async () => {
    const { person } = show(three);
    await screen.findByRole('grid');
    expect(rows().map((_row, at) => cell(at, 8).textContent)).toEqual(['a roster', 'this school', 'this school']);
    await person.click(cell(0, 2));
    expect(screen.getByRole('status').textContent).toMatch(/A roster brought this person: its next import writes/);
  });

  it('a first list is pasted at once: rows below the last one are new people, and all of them are saved together', async () => {
    const { person, sent } = show([], { 'PUT /schools/1/people': made(7, { people: three }) });
    expect(await headline()).toBe('Upper School has 0 students and 0 staff.');
    await person.click(screen.getByRole('button', { name: 'New person' }));
    await person.click(cell(0, 1));
    await person.paste('S1\tSkerry\tAda\tstudent\t10\t17 May 2010\nS2\tRook\tBo\tstudent\t9\t');
    await expect.poll(names).toEqual(['Skerry', 'Rook']);
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => saveOf(sent))
      .toEqual({
        changes: [
          { id: null, revision: '', cells: personCells('S1', { familyName: 'Skerry', birthDate: '2010-05-17' }) },
          { id: null, revision: '', cells: personCells('S2', { familyName: 'Rook', givenName: 'Bo', yearGroup: '9' }) },
        ],
        removed: [],
      });
    expect((await screen.findByText('2 people saved.')).textContent).toBe('2 people saved.');
  });

  it('a pasted list with its headings is looked at first, and knows whom it names', async () => {
    const { person } = show(three);
    await screen.findByRole('grid');
    await person.click(cell(0, 1));
    await person.paste(
      'Student no\tSurname\tFirst name\tRole\tYear group\nS2\tRook\tBo\tstudent\t10\nS9\tKyle\tEve\tpupil\t9',
    );
    const dialog = await screen.findByRole('dialog', { name: 'What was pasted' });
    expect(dialog.textContent).toMatch(/1 new, 1 changed, 0 the same/);
    await person.click(within(dialog).getByRole('button', { name: 'Use 2 rows as a draft' }));
    expect(await headline()).toBe('Upper School has 2 students and 1 staff; 2 are changed and not saved.');
    expect(names()).toEqual(['Skerry', 'Rook', 'Holm', 'Kyle']);
  });

  it('of whom two would have one number cannot be saved before it is mended', async () => {
    const { person } = show(three);
    await screen.findByRole('grid');
    await person.click(cell(1, 1));
    await person.keyboard('S1{Enter}');
    expect(await headline()).toMatch(/; 1 is changed and not saved, 2 cannot be saved yet\.$/);
    await person.click(cell(1, 1));
    expect(screen.getByRole('status').textContent).toBe('Number of Rook, Bo: another student has this number too');
  });

  it('move to another year together', async () => {
    const { person, sent } = show(three, { 'PUT /schools/1/people': made(8, { people: three }) });
    await screen.findByRole('grid');
    for (const row of [0, 1]) await person.click(within(cell(row, 0)).getByRole('checkbox'));
    await person.type(screen.getByRole('textbox', { name: 'Value' }), '11');
    await person.click(screen.getByRole('button', { name: 'Set it' }));
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => saveOf(sent))
      .toMatchObject({
        changes: [
          { id: 1, revision: 'r1', cells: { yearGroup: '11' } },
          { id: 2, revision: 'r2', cells: { yearGroup: '11' } },
        ],
      });
  });
});
