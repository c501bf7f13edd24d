import { describe, expect, it } from 'vitest';
import { problemCodes, problemOf, type ProblemCode, type ProblemData } from './index.js';

const codes = Object.keys(problemCodes) as ProblemCode[];

it('fills the words of a problem, and has what RFC 9457 asks for', () => {
  expect(problemOf('scale-changed', { current: 3, yours: 2 }, [])).toEqual({
    type: 'urn:wombat:problem:scale-changed',
    title: 'Someone else saved this scale',
    status: 409,
    detail: 'Version 3 is saved; your draft began from version 2. Your draft is kept: compare and save again.',
    code: 'scale-changed',
    errors: [],
  });
});

describe('every problem', () => {
  it.each(codes)('%s is a client or server error with a title and whole sentences', (code) => {
    const [status, title, detail] = problemCodes[code];
    expect(status).toBeGreaterThanOrEqual(400);
    expect(title).toMatch(/^[A-Z{]/);
    expect(detail).toMatch(/[.}]$/);
  });

  it.each(codes)('%s leaves no word open once all are given', (code) => {
    const words = [...problemCodes[code].join(' ').matchAll(/\{(\w+)[,}]/g)].map(
      ([, word]) => [word!, word === 'count' ? 2 : 'x'] as const,
    );
    const { title, detail } = problemOf(code, Object.fromEntries(words) as ProblemData<ProblemCode>, []);
    expect(`${title} ${detail}`).not.toMatch(/[{}]/);
  });
});
