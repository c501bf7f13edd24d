import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { roles, type Grant, type Role } from '#core/access';
import { usualView } from '#core/people';
import { showAt } from '../../test/show-at.fixture';
import { mayIn } from '../shell/access';
import { placeAt } from '../shell/places';
import { pages } from '../shell/pages';
import { showOwnView, useOwnView } from '../ui/own-view';
import { HelpDialog } from './help-dialog';
import { roleStepsOf } from './role-steps';
import { RoleStepsStrip } from './role-steps-strip';
import { wordsAt } from './words-of-places';

const personOf = (...grants: readonly Grant[]) => ({ personId: 7, name: 'Any One', grants });
const holding = (role: Role, schoolId: number | null = 1) => personOf({ role, schoolId });
const under = {
  grades: 3,
  students: 1,
  staff: 1,
  courses: 1,
  sections: 1,
  enrollments: 1,
  scales: 1,
  items: 1,
  rules: 1,
};
const show = (person = holding('teacher'), counts: object = under) =>
  showAt(
    <>
      <RoleStepsStrip person={person} />
      <HelpDialog person={person} isOpen onOpenChange={() => undefined} />
    </>,
    { address: 'grade-sheets', answers: { 'GET /schools/1/first-steps': counts } },
  );

beforeEach(() => showOwnView(usualView));

describe('first steps', () => {
  it.each(roles)('of a %s lead only where one may go', (role) => {
    const person = holding(role);
    const paths = roleStepsOf(person, 1)!.steps.flatMap(({ path }) => path ?? []);
    const places = paths.map((path) => placeAt(`/school/1/period/4/${path}`)!);
    expect(places.map(({ name, read }) => [name, mayIn(person, 1, read)])).toEqual(
      places.map(({ name }) => [name, true]),
    );
  });

  it('are those of the widest role, and none where somebody has no role', () => {
    expect(roleStepsOf(personOf({ role: 'viewer', schoolId: 1 }, { role: 'teacher', schoolId: 1 }), 1)!.role).toBe(
      'teacher',
    );
    expect(roleStepsOf(holding('registrar', 2), 1)).toBeUndefined();
    expect(roleStepsOf(holding('viewer', null), 1)!.role).toBe('viewer');
  });

  it('stand above every page until they are hidden, and come back in the help', async () => {
    const { person } = show();
    const strip = screen.getByLabelText('First steps of a teacher');
    expect(within(strip).getAllByRole('listitem', { hidden: true })[1]!.textContent).toBe('2Type the grades');
    expect(within(strip).getByLabelText('Step 1: Open a grade sheet').getAttribute('href')).toBe(
      '/school/1/period/4/grade-sheets',
    );
    await person.click(screen.getByRole('checkbox', { name: 'Show them above every page' }));
    expect(screen.queryByLabelText(/^First steps of/)).toBeNull();
    expect(useOwnView.getState().hidesFirstSteps).toBe(true);
    await person.click(screen.getByRole('checkbox', { name: 'Show them above every page' }));
    expect(screen.getByLabelText(/^First steps of/)).toBeTruthy();
  });

  it('of a registrar leave the place to those of a school that is being set up', async () => {
    show(holding('registrar'), { ...under, grades: 0 });
    await expect.poll(() => screen.queryByLabelText(/^First steps of/)).toBeNull();
  });
});

describe('the help of a screen', () => {
  it('has its keys, its words and the way to the first steps', () => {
    show();
    const help = screen.getByRole('dialog', { name: 'Help for this screen' });
    expect(
      within(help)
        .getAllByRole('heading', { level: 3 })
        .map(({ textContent }) => textContent),
    ).toEqual(['Keys of this screen', 'Words of this screen', 'First steps of a teacher']);
    expect(within(help).getByText('Override:', { exact: false }).nextSibling!.textContent).toMatch(
      /differs from what was computed/,
    );
    expect(within(help).getByText(/move in a list or a grid/)).toBeTruthy();
  });

  it('knows the words of every place that has some of its own', () => {
    const without = new Set(['new-school', 'set-up', 'outbox']);
    const places = [...new Set(pages.map(({ path }) => path.split('/')[0]!))].filter((place) => !without.has(place));
    expect(places.filter((place) => wordsAt(`/school/1/period/4/${place}/7`).length === 0)).toEqual([]);
  });
});
