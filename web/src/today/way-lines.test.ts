import { describe, expect, it } from 'vitest';
import type { PeriodReply } from '#contract/calendar';
import { dayOrThrow } from '#core/calendar';
import { linesOfWay, type WayFacts } from './way-lines';

const posting: NonNullable<PeriodReply['posting']> = {
  itemId: 1,
  itemName: 'Quarter grade',
  sections: 231,
  sectionsComplete: 214,
  window: null,
  sealedAt: null,
  audit: null,
};
const period = (over: Partial<typeof posting> = {}): PeriodReply => ({
  id: 4,
  parentId: 1,
  kind: 'quarter',
  name: 'Quarter 2',
  startsOn: dayOrThrow('2025-11-10'),
  endsOn: dayOrThrow('2026-01-23'),
  posting: { ...posting, ...over },
});
const nothing: WayFacts = { faults: 0, platforms: [], files: [] };
const now = '2026-01-21T10:42:00Z';
const lineOf = (says: string, facts: Partial<WayFacts>, over: Partial<typeof posting> = {}) => {
  const { note, path, act, isDone } = linesOfWay(period(over), now, { ...nothing, ...facts }).find(
    (line) => line.says === says,
  )!;
  return [note, path, act, isDone];
};
const platform = (name: string, open: number, state: 'read' | 'failed' = 'read') => ({ name, open, state });

describe('the way to the transcript', () => {
  it.each<[string, Partial<WayFacts>, unknown[]]>([
    [
      'without faults',
      {},
      [
        'Quarter grade is reported by 231 sections, and the check finds no fault.',
        'report-items',
        'Look at the rules',
        true,
      ],
    ],
    [
      'with a fault is not done',
      { faults: 1 },
      ['Quarter grade is reported by 231 sections; 1 fault to resolve.', 'set-up', 'Resolve the faults', false],
    ],
  ])('the set-up %s', (_name, facts, expected) => expect(lineOf('Set up', facts)).toEqual(expected));

  it.each<[string, Partial<WayFacts>, unknown[]]>([
    [
      'of a school without any',
      {},
      ['No learning platform is connected; no file waits.', 'files', 'Import a file', true],
    ],
    [
      'that is all matched',
      { platforms: [platform('Shoreline', 0)] },
      ['Shoreline: everything is matched; no file waits.', 'runs', 'Plan a run', true],
    ],
    [
      'with matches to decide',
      { platforms: [platform('Shoreline', 140), platform('Reef', 5)], files: [{ status: 'planned' }] },
      [
        'Shoreline and Reef: 145 matches wait for a decision; 1 file waits to be imported.',
        'matches',
        'Decide the matches',
        false,
      ],
    ],
    [
      'with files alone',
      { files: [{ status: 'planned' }, { status: 'accepted' }] },
      ['No learning platform is connected; 1 file waits to be imported.', 'files', 'Look at the files', false],
    ],
    [
      'that could not be read',
      { platforms: [platform('Shoreline', 1, 'failed')] },
      [
        'Shoreline: 1 match waits for a decision; Shoreline could not be read; no file waits.',
        'platforms',
        'See why',
        false,
      ],
    ],
  ])('a learning platform %s', (_name, facts, expected) => expect(lineOf('Map', facts)).toEqual(expected));

  it('of a period that is sealed is done, whatever waits', () => {
    const lines = linesOfWay(period({ sealedAt: '2026-01-30T10:00:00Z' }), now, {
      ...nothing,
      platforms: [platform('Shoreline', 3)],
    });
    expect(lines.map(({ says, isDone }) => [says, isDone])).toEqual(
      ['Set up', 'Map', 'Collect', 'Audit', 'Transcripts'].map((says) => [says, true]),
    );
  });

  it('counts findings, and sections with every grade', () => {
    expect(lineOf('Audit', {}, { audit: { at: now, findings: 1 } })[0]).toMatch(/^1 finding in the run of /);
    expect(lineOf('Collect', {})[0]).toBe('214 of 231 sections have every grade.');
  });
});
