import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { showAt } from '../../test/show-at.fixture';
import { CoverageFilter } from './coverage-filter';
import { reply } from '../../test/report-items.fixture';

const chosen = () => screen.getByRole<HTMLSelectElement>('combobox').selectedOptions[0]!.textContent;

it.each([
  ['report-items', 'all courses'],
  ['report-items?course=12', 'Course 12 alone'],
  ['report-items?course=99', 'all courses'],
  ['report-items?without=2', 'those without Exam'],
  ['report-items?show=exceptions', 'those with an exception'],
])('at %s the table shows %s, and says so', (address, says) => {
  showAt(<CoverageFilter reply={reply} />, { address });
  expect(chosen()).toBe(says);
});

it('another choice takes the place of the one before and leaves the rest of the address', async () => {
  const { person, search } = showAt(<CoverageFilter reply={reply} />, {
    address: 'report-items?item=3&sort=title&course=12',
  });
  await person.selectOptions(screen.getByRole('combobox'), 'those without Exam');
  expect([search(), chosen()]).toEqual(['?item=3&sort=title&without=2', 'those without Exam']);
  await person.selectOptions(screen.getByRole('combobox'), 'all courses');
  expect(search()).toBe('?item=3&sort=title');
});
