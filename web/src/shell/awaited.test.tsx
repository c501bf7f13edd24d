import { useQuery } from '@tanstack/react-query';
import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import { api } from './api';
import { Awaited } from './awaited';
import { showAt } from '../../test/show-at.fixture';

function Shown() {
  const query = useQuery({ queryKey: ['thing'], queryFn: () => api.get<{ name: string }>('/thing') });
  return (
    <Awaited query={query} waiting="Looking for it">
      {({ name }) => <h1>{name}</h1>}
    </Awaited>
  );
}
const refused: Problem = {
  type: 'urn:wombat:problem:not-found',
  code: 'not-found',
  title: 'Not found',
  status: 404,
  detail: 'There is no thing with number 7.',
  errors: [],
};

it('says what is done until the answer is there', async () => {
  showAt(<Shown />, { answers: { 'GET /thing': { name: 'Knots' } } });
  expect(screen.getByText('Looking for it …')).toBeTruthy();
  expect(await screen.findByRole('heading', { name: 'Knots' })).toBeTruthy();
});

it.each([
  ['the server refuses', () => refused, 'There is no thing with number 7.'],
  [
    'nobody answers',
    () => {
      throw new TypeError('gone');
    },
    'What you typed is kept here. Try again in a moment; what reached the server before shows as saved.',
  ],
])('where %s says why, and asks again when told to', async (_case, fail, says) => {
  let answer: () => object = fail;
  const { person } = showAt(<Shown />, { answers: { 'GET /thing': () => answer() } });
  expect((await screen.findByRole('alert')).textContent).toContain(says);
  answer = () => ({ name: 'Knots' });
  await person.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByRole('heading', { name: 'Knots' })).toBeTruthy();
});
