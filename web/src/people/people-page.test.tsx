import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { SavedRows } from '#contract/cell-tables';
import type { PeopleReply, PersonRowReply } from '#contract/people';
import { personCells, personOf } from '../../test/people.fixture';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { peopleDrafts } from './people-drafts';
import { PeoplePage } from './people-page';

const today = dayOrThrow('2026-01-20');
const three = [
  personOf(1, personCells('S1', { familyName: 'Skerry' }), { isOfRoster: true, sections: 3 }),
  personOf(2, personCells('S2', { familyName: 'Rook', givenName: 'Bo', yearGroup: '9' })),
  personOf(3, personCells('', { familyName: 'Holm', kind: 'staff', yearGroup: '', email: 'ben@school.example' })),
];
const show = (people: readonly PersonRowReply[], answers: Answers = {}, address = 'people') =>
  showAt(<PeoplePage />, {
    address,
    answers: {
      'GET /schools/1/people': { today, people } satisfies PeopleReply,
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

/** What a save answers: all people, and which of them the changed rows became. */
const savedAs = (people: readonly PersonRowReply[], ...ids: number[]): PeopleReply & SavedRows => ({
  today,
  people: [...people],
  saved: ids.map((id) => ({ id, revision: people.find((one) => one.id === id)!.revision })),
});

beforeEach(() => peopleDrafts.discard(1));

describe('the people of a school', () => {
  it('are counted, and narrowed by what the figures say, by year and by text', async () => {
    const { person, search } = show(three);
    expect(await headline()).toBe('Upper School has 2 students and 1 staff.');
    await person.click(screen.getAllByRole('button', { name: '1' }).at(-1)!);
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
    expect(rows().map((_row, at) => cell(at, 12).textContent)).toEqual(['a roster', 'this school', 'this school']);
    await person.click(cell(0, 2));
    expect(screen.getByRole('status').textContent).toMatch(
      /Sits in 3 sections\. A roster brought this person: its next import writes/,
    );
  });

  it('tell of those who left and still have seats, and how to end that', async () => {
    const left = personOf(4, personCells('S4', { familyName: 'Voe', leftOn: '2026-01-16' }), { seatsAfterLeaving: 6 });
    const { person } = show([...three, left]);
    expect(await headline()).toBe('Upper School has 3 students and 1 staff; 1 left and has seats beyond that day.');
    await person.click(screen.getAllByRole('button', { name: '1' }).at(-1)!);
    expect(names()).toEqual(['Voe']);
    await person.click(cell(0, 2));
    expect(screen.getByRole('status').textContent).toMatch(
      /Left, and has 6 seats beyond that day: give them a day of withdrawal/,
    );
  });

  it('a first list is pasted at once: rows below the last one are new people, and all of them are saved together', async () => {
    const { person, sent } = show([], { 'PUT /schools/1/people': made(7, savedAs(three, 1, 2)) });
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

  it('typed during a save stay as they were typed, of new people too, and nobody else is asked about them', async () => {
    let answer: (reply: object) => void = () => undefined;
    const now = [...three, personOf(4, personCells('S9', { familyName: 'Kyle', givenName: 'Eve' }))];
    let isSaved = false;
    const { person, sent } = show(three, {
      'GET /schools/1/people': () => ({ today, people: isSaved ? now : three }),
      'PUT /schools/1/people': () => new Promise<object>((resolve) => (answer = resolve)),
    });
    await screen.findByRole('grid');
    await person.click(cell(2, 1));
    await person.paste('\tHolm\tAda\nS9\tKyle\tEve\tstudent\t10');
    await person.keyboard('{Control>}s{/Control}');
    await expect.poll(() => saveOf(sent)).toMatchObject({ changes: [{ id: null, cells: { familyName: 'Kyle' } }] });
    await person.click(cell(3, 5));
    await person.keyboard('11{Enter}');
    await person.click(cell(1, 5));
    await person.keyboard('12{Enter}');
    isSaved = true;
    answer(made(9, savedAs(now, 4)));
    await screen.findByText('1 person saved.');
    expect(await headline()).toBe('Upper School has 3 students and 1 staff; 2 are changed and not saved.');
    expect([cell(1, 5).textContent, cell(3, 5).textContent, names()]).toEqual([
      '12',
      '11',
      ['Skerry', 'Rook', 'Holm', 'Kyle'],
    ]);
    expect(screen.queryByText(/Someone else/)).toBeNull();
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => sent.findLast(({ request }) => request.startsWith('PUT'))?.body)
      .toMatchObject({
        changes: [
          { id: 2, revision: 'r2', cells: { yearGroup: '12' } },
          { id: 4, revision: 'r4', cells: { yearGroup: '11' } },
        ],
      });
  });

  it('moved by a save take the cursor and what is being typed along', async () => {
    let answer: (reply: object) => void = () => undefined;
    const now = [personOf(4, personCells('S9', { familyName: 'Aran' })), ...three];
    let isSaved = false;
    const { person } = show(three, {
      'GET /schools/1/people': () => ({ today, people: isSaved ? now : three }),
      'PUT /schools/1/people': () => new Promise<object>((resolve) => (answer = resolve)),
    });
    await screen.findByRole('grid');
    await person.click(cell(2, 1));
    await person.paste('\tHolm\tAda\nS9\tAran\tAda\tstudent\t10');
    await person.click(cell(3, 5));
    await person.keyboard('{Control>}s{/Control}1');
    isSaved = true;
    answer(made(9, savedAs(now, 4)));
    await screen.findByText('1 person saved.');
    expect(names()).toEqual(['Aran', 'Skerry', 'Rook', 'Holm']);
    await person.keyboard('2{Enter}');
    expect([0, 1, 2, 3].map((row) => cell(row, 5).textContent)).toEqual(['12', '10', '9', '']);
  });

  it('saved without an answer are not saved a second time: the row says that it is there', async () => {
    let people = three.slice(0, 2);
    const { person } = show(people, {
      'GET /schools/1/people': () => ({ today, people }),
      'PUT /schools/1/people': () => {
        people = [...three.slice(0, 2), personOf(7, personCells('S7', { familyName: 'Kyle', yearGroup: '9' }))];
        throw new TypeError('the line was cut');
      },
    });
    await screen.findByRole('grid');
    await person.click(cell(1, 1));
    await person.paste('S2\tRook\tBo\tstudent\t9\nS7\tKyle\tAda\tstudent\t9');
    await person.keyboard('{Control>}s{/Control}');
    await expect.poll(async () => headline()).toMatch(/; 1 is changed and not saved, 2 cannot be saved yet\.$/);
    await person.click(cell(3, 1));
    expect(screen.getByRole('status').textContent).toMatch(/exactly this row is saved already; remove it here/);
  });

  it('move to another year together', async () => {
    const { person, sent } = show(three, { 'PUT /schools/1/people': made(8, savedAs(three, 1, 2)) });
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
