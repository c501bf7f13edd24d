import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { canonicalJson, chainStart, entryHash, findChainFault, type ChainedEntry } from './index.js';

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

function chain(count: number): ChainedEntry[] {
  const entries: ChainedEntry[] = [];
  for (let id = 1; id <= count; id++) {
    const previousHash = entries.at(-1)?.hash ?? chainStart;
    const entry = {
      at: '2026-01-21T10:00:00Z',
      actorId: 7,
      actor: 'registrar',
      action: 'save',
      thing: `grade ${id}`,
      before: null,
      after: { label: 'B' },
    };
    entries.push({ ...entry, id, previousHash, hash: entryHash(entry, previousHash, sha256) });
  }
  return entries;
}

describe('the chain of the log', () => {
  it('holds when nothing was touched', () => expect(findChainFault(chain(5), sha256)).toBeUndefined());

  it.each<[string, Partial<ChainedEntry>]>([
    ['what was done', { after: { label: 'A' } }],
    ['who did it, by name', { actor: 'teacher' }],
    ['who did it, by number', { actorId: 8 }],
    ['when', { at: '2026-01-21T10:00:01Z' }],
    ['to what', { thing: 'grade 4' }],
  ])('shows an entry in which is altered %s', (_what, altered) => {
    const entries = chain(5).map((entry) => (entry.id === 3 ? { ...entry, ...altered } : entry));
    expect(findChainFault(entries, sha256)).toEqual({ code: 'entry-altered', id: 3 });
  });

  it('shows a removed entry, the first one too', () => {
    expect(
      findChainFault(
        chain(5).filter(({ id }) => id !== 3),
        sha256,
      ),
    ).toEqual({ code: 'entry-missing-before', id: 4 });
    expect(findChainFault(chain(5).slice(1), sha256)).toEqual({ code: 'entry-missing-before', id: 2 });
  });
});

it('writes equal things alike, whatever the order of their keys', () => {
  expect(canonicalJson({ b: [1, { d: null, c: undefined }], a: 'é' })).toBe('{"a":"é","b":[1,{"d":null}]}');
});
