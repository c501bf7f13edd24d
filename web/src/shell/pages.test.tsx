import { screen } from '@testing-library/react';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import { pages } from './pages';
import { showRoutes, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';

const frame: Answers = { 'GET /schools/1/term-line': termLineOf(), 'GET /schools': [], 'GET /session': {} };
const refusal = (status: number, detail: string): Problem => ({
  type: 'urn:wombat:problem:unexpected',
  code: 'unexpected',
  title: 'Refused',
  status,
  detail,
  errors: [],
});
const show = (path: string, otherwise: () => object | Promise<object>) =>
  showRoutes(pages, { address: path.replaceAll(/:\w+/g, '7'), answers: frame, otherwise });

beforeAll(() => Promise.all(pages.map(({ lazy }) => lazy())));

/** So that a page that is added later has its other faces too. */
describe.each(pages.map(({ path }) => path))('the page %s', (path) => {
  it('is a skeleton while the server is asked', async () => {
    show(path, () => new Promise(() => undefined));
    expect((await screen.findByRole('status', { name: 'Loading' })).tagName).toBe('DIV');
  });

  it('says why it could not be read, and asks again when told to', async () => {
    let says = 'The disk is full.';
    const { person } = show(path, () => refusal(500, says));
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('This page could not be read.');
    expect(screen.getByRole('alert').textContent).toContain('The disk is full.');
    says = 'It is full still.';
    await person.click(screen.getByRole('button', { name: 'Try again' }));
    expect((await screen.findByText('It is full still.')).tagName).toBe('P');
  });

  it('has words and a way on for somebody who may not see it', async () => {
    show(path, () => refusal(403, 'Only a registrar may do this.'));
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('This page is not for your role.');
    expect(screen.getByRole('link', { name: 'Go to your first page' })).toHaveProperty(
      'pathname',
      '/school/1/period/4/',
    );
  });

  it('has words and a way on where there is no such thing', async () => {
    show(path, () => refusal(404, 'There is no thing with number 7.'));
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('There is nothing at this address.');
    expect(screen.getByText('There is no thing with number 7.').tagName).toBe('P');
    expect(screen.getByRole('link', { name: 'Go to your first page' }).textContent).not.toBe('');
  });
});
