import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { usualView } from '#core/people';
import type { EnrollmentRowReply, SectionRowReply } from '#contract/sections';
import {
  enrollmentCells,
  enrollmentOf,
  enrollmentsReply,
  sectionCells,
  sectionOf,
  sectionsReply,
} from '../../test/sections.fixture';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { EnrollmentsPage } from './enrollments-page';
import { enrollmentDrafts, sectionDrafts } from './section-drafts';
import { showOwnView } from '../ui/own-view';
import { SectionsPage } from './sections-page';

const headline = async () => (await screen.findByRole('heading', { level: 1 })).textContent;
const rows = () => within(screen.getByRole('grid')).getAllByRole('row').slice(1);
const cell = (row: number, column: number) => within(rows()[row]!).getAllByRole('gridcell')[column]!;
const textsOf = (row: number) =>
  within(rows()[row]!)
    .getAllByRole('gridcell')
    .slice(1)
    .map(({ textContent }) => textContent);
const sentTo = (request: string, sent: readonly { request: string; body: unknown }[]) =>
  sent.findLast((each) => each.request === request)?.body;

beforeEach(() => {
  sectionDrafts.discard(1);
  for (const key of ['1', '1/31']) enrollmentDrafts.discard(key);
});

describe('the sections of a year', () => {
  const two = [
    sectionOf(31, sectionCells()),
    sectionOf(32, sectionCells({ course: 'Knots', period: 'Semester 1' }), { students: 0, isOfRoster: true }),
  ];
  const show = (sections: readonly SectionRowReply[], answers: Answers = {}) =>
    showAt(<SectionsPage />, {
      address: 'sections',
      answers: {
        'GET /schools/1/sections': sectionsReply(sections),
        'GET /schools/1/term-line': termLineOf(),
        ...answers,
      },
    });

  it('are counted, those without anybody too, and what the period says stands where a cell is empty', async () => {
    const { person, search } = show(two);
    expect(await headline()).toBe(
      'Upper School runs 2 sections in 2025–26, taught by 1 teacher; nobody sits in 1 section.',
    );
    expect([0, 1].map(textsOf)).toEqual([
      ['Weaving', '1', 'Reed, Tamsin', '2025–26', '2025-09-01', '2026-06-30', '', '', '20'],
      ['Knots', '1', 'Reed, Tamsin', 'Semester 1', '2025-09-01', '2026-01-31', '', '', '0'],
    ]);
    await person.click(screen.getByRole('button', { name: '1 section' }));
    expect([search(), rows().length, textsOf(0)[0]]).toEqual(['?empty=yes', 1, 'Knots']);
    await person.click(cell(0, 1));
    expect(screen.getByRole('status').textContent).toMatch(/A roster brought this section/);
    expect(screen.getByRole('link', { name: '0 students of Knots 1' }).getAttribute('href')).toBe(
      '/school/1/period/4/enrollments?section=32',
    );
  });

  it('tell where more sit than there are seats for, and show those alone that run today where somebody likes it so', async () => {
    const full = sectionOf(33, sectionCells({ number: '2', seats: '24' }), { staying: 25 });
    // Today is in Semester 1; this one ended the week before.
    const over = sectionOf(34, sectionCells({ number: '3', endsOn: '2026-01-13' }));
    const { person, search } = show([...two, full, over]);
    expect(await headline()).toMatch(/; 1 section has more students than seats\.$/);
    await person.click(screen.getAllByRole('button', { name: '1 section' }).at(-1)!);
    expect([search(), rows().length, textsOf(0)[1]]).toEqual(['?overfull=yes', 1, '2']);
    await person.click(cell(0, 2));
    expect(screen.getByRole('status').textContent).toMatch(/25 of 24 seats are taken\./);
    await person.click(screen.getByRole('button', { name: '4 sections' }));
    await person.selectOptions(screen.getByRole('combobox', { name: 'Day shown' }), 'that run today');
    expect([search(), rows().map((_row, at) => textsOf(at)[1])]).toEqual(['?on=today', ['1', '1', '2']]);
    await person.selectOptions(screen.getByRole('combobox', { name: 'Day shown' }), 'on any day');
    expect(rows()).toHaveLength(4);
  });

  it('begin with those that run today for whoever wants them so, and lead to all of them', async () => {
    showOwnView({ ...usualView, onlyRunning: true });
    const { person } = show([...two, sectionOf(34, sectionCells({ number: '3', endsOn: '2026-01-13' }))]);
    await screen.findByRole('grid');
    expect(rows()).toHaveLength(2);
    await person.click(screen.getByRole('button', { name: '3 sections' }));
    expect(rows()).toHaveLength(3);
    showOwnView(usualView);
  });

  it('of one course and period can be merged, others say why not; one is split where its students are', async () => {
    const { person } = show([...two, sectionOf(33, sectionCells({ number: '2' }))], {
      'POST /schools/1/sections/merge/preview': {
        previewId: 'p',
        into: 'Weaving 1',
        ending: [],
        removed: [],
        rows: [],
        lastDay: '2026-01-20',
        staying: 1,
        seats: null,
      },
    });
    await screen.findByRole('grid');
    const buttonOf = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });
    const select = (row: number) => person.click(within(cell(row, 0)).getByRole('checkbox'));
    await select(0);
    expect([buttonOf('Merge…').title, buttonOf('Split…').disabled]).toEqual([
      'Select two or more sections of one course.',
      false,
    ]);
    await select(1);
    expect(buttonOf('Merge…').title).toMatch(/are of one course/);
    await select(1);
    await select(2);
    await person.click(buttonOf('Merge…'));
    expect(await screen.findByRole('dialog', { name: 'Merge 2 sections' })).toBeTruthy();
  });

  it('a new one begins like the last, with the next number; names are read as people write them', async () => {
    const reply = sectionsReply([...two, sectionOf(33, sectionCells({ course: 'Knots', number: '2' }))]);
    const { person, sent } = show(two, {
      'PUT /schools/1/sections': made(5, { ...reply, saved: [{ id: 33, revision: 'r33' }] }),
    });
    await screen.findByRole('grid');
    await person.click(screen.getByRole('button', { name: 'New section' }));
    expect(textsOf(2).slice(0, 4)).toEqual(['Knots', '2', 'Reed, Tamsin', 'Semester 1']);
    await person.click(cell(2, 3));
    await person.keyboard('bo hale{Enter}');
    await person.click(cell(2, 4));
    await person.keyboard('{Delete}');
    await person.click(cell(2, 6));
    await person.keyboard('2025-08-31{Enter}');
    expect(await headline()).toMatch(/, 1 cannot be saved yet\.$/);
    await person.click(cell(2, 6));
    expect(screen.getByRole('status').textContent).toBe('Last day of Knots 2: a day of this year');
    await person.keyboard('{Delete}{Control>}s{/Control}');
    await expect
      .poll(() => sentTo('PUT /schools/1/sections', sent))
      .toEqual({
        changes: [
          { id: null, revision: '', cells: sectionCells({ course: 'Knots', number: '2', teacher: 'Hale, Bo' }) },
        ],
        removed: [],
      });
    expect((await screen.findByText('1 section saved.')).textContent).toBe('1 section saved.');
  });

  it('get another teacher together', async () => {
    const { person } = show(two);
    await screen.findByRole('grid');
    await person.click(screen.getByRole('checkbox', { name: 'Select all sections shown' }));
    await person.selectOptions(screen.getByRole('combobox', { name: 'Value' }), 'Hale, Bo');
    await person.click(screen.getByRole('button', { name: 'Set it' }));
    expect([0, 1].map((row) => textsOf(row)[2])).toEqual(['Hale, Bo', 'Hale, Bo']);
  });
});

describe('who sits in sections', () => {
  const two = [
    enrollmentOf(51, enrollmentCells('Skerry, Ada')),
    enrollmentOf(52, enrollmentCells('Rook, Bo', { withdrawnOn: '2025-11-20' })),
  ];
  const show = (enrollments: readonly EnrollmentRowReply[], answers: Answers = {}, address = 'enrollments') =>
    showAt(<EnrollmentsPage />, {
      address,
      answers: {
        'GET /schools/1/enrollments': enrollmentsReply(enrollments),
        'GET /schools/1/term-line': termLineOf(),
        ...answers,
      },
    });

  it('are counted, and narrowed to those who left', async () => {
    const { person, search } = show(two);
    expect(await headline()).toBe('2 students of Upper School have 2 seats in 1 section, 1 of them withdrawn.');
    await person.click(screen.getByRole('button', { name: '1' }));
    expect([search(), rows().map((_row, at) => textsOf(at)[1])]).toEqual(['?state=left', ['Rook, Bo']]);
  });

  it('are called as the reader likes it, and are typed and found by either name', async () => {
    const reply = enrollmentsReply([enrollmentOf(51, enrollmentCells('Skerry, Ada'))]);
    const [ada, bo] = reply.students;
    const students = [{ ...ada!, names: [...ada!.names, 'Addie Skerry'], listed: 'Skerry, Ada “Addie”' }, bo!];
    showOwnView({ ...usualView, peopleOrder: 'given', names: 'preferred' });
    const { person, sent } = show([], {
      'GET /schools/1/enrollments': { ...reply, students },
      'PUT /schools/1/enrollments': made(6, { ...reply, students, saved: [] }),
    });
    await headline();
    expect(textsOf(0)[1]).toBe('Addie Skerry');
    await person.type(screen.getByRole('searchbox'), 'addie');
    expect(rows()).toHaveLength(1);
    await person.click(screen.getByRole('button', { name: 'New enrollment' }));
    await person.clear(screen.getByRole('searchbox'));
    await person.click(cell(0, 1));
    await person.paste('Weaving 1\taddie skerry');
    await expect.poll(() => textsOf(0).slice(0, 2)).toEqual(['Weaving 1', 'Addie Skerry']);
    expect(sentTo('PUT /schools/1/enrollments', sent)).toBeUndefined();
    showOwnView(usualView);
  });

  it('of one section are pasted by their numbers; twice in it none is', async () => {
    const { person, sent } = show(
      [],
      {
        'PUT /schools/1/enrollments': made(6, { ...enrollmentsReply(two), saved: [] }),
      },
      'enrollments?section=31',
    );
    expect(await headline()).toBe('Weaving 1 has 0 students.');
    await person.click(screen.getByRole('button', { name: 'New enrollment' }));
    await person.click(cell(0, 2));
    await person.paste('s1\nS2\ns1');
    await expect
      .poll(() => rows().map((_row, at) => textsOf(at)[1]))
      .toEqual(['Skerry, Ada', 'Rook, Bo', 'Skerry, Ada']);
    expect(await headline()).toMatch(/; 3 are changed and not saved, 2 cannot be saved yet\.$/);
    await person.click(cell(2, 2));
    expect(screen.getByRole('status').textContent).toMatch(/this student has a seat in the section already$/);
    await person.keyboard('{Control>}z{/Control}');
    await person.paste('s1\nS2');
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => sentTo('PUT /schools/1/enrollments', sent))
      .toMatchObject({
        changes: [
          { id: null, cells: { section: 'Weaving 1', student: 'Skerry, Ada' } },
          { id: null, cells: { section: 'Weaving 1', student: 'Rook, Bo' } },
        ],
      });
  });
});
