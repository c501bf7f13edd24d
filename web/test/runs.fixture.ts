import { ledgerOutcomes, rowResults } from '#core/runs';
import type { LedgerCountsReply, RunReply, RunRowReply } from '#contract/runs';

const noneOf = <Name extends string>(names: readonly Name[]) =>
  Object.fromEntries(names.map((name) => [name, 0])) as Record<Name, number>;

interface Counts extends Partial<Omit<LedgerCountsReply, 'outcomes' | 'results'>> {
  readonly outcomes?: Partial<LedgerCountsReply['outcomes']>;
  readonly results?: Partial<LedgerCountsReply['results']>;
}

export const countsOf = ({ outcomes, results, ...over }: Counts = {}): LedgerCountsReply => ({
  outcomes: { ...noneOf(ledgerOutcomes), ...outcomes },
  results: { ...noneOf(rowResults), ...results },
  leftOut: 0,
  blank: 0,
  heldBack: 0,
  reasons: [],
  ...over,
});

/** A run of Quillpond into Quarter 2 that is planned and waits: five rows to write, one refused with two scores. */
export const runOf = (over: Partial<RunReply> = {}): RunReply => ({
  id: 7,
  platformId: 3,
  platform: 'Quillpond',
  periodId: 4,
  period: 'Quarter 2',
  stage: 'plan',
  state: 'ready',
  done: 2,
  total: 2,
  mode: 'keep',
  carriesWork: true,
  carriesTotals: false,
  isNightly: false,
  problem: null,
  startedBy: 'Morwenna Lark',
  startedAt: '2026-01-21T09:00:00Z',
  endedAt: '2026-01-21T09:01:00Z',
  counts: countsOf({
    outcomes: { create: 4, change: 1, same: 20, refuse: 1 },
    heldBack: 2,
    reasons: [{ code: 'group-open', effect: 'refuse', lines: 1, heldBack: 2, classes: 1 }],
  }),
  classes: [
    { classId: 1, title: 'Knots A', section: 'Knots · section 1', sectionId: 31, toWrite: 5, picked: 5, notSent: 1 },
    { classId: 2, title: 'Shore B', section: null, sectionId: null, toWrite: 0, picked: 0, notSent: 9 },
  ],
  categories: [{ id: 1, name: 'Tests' }],
  ...over,
});

/** A score of Ada's that would become 18 points. */
export const rowOf = (over: Partial<RunRowReply> = {}): RunRowReply => ({
  id: 70,
  classId: 1,
  kind: 'score',
  outcome: 'create',
  reasons: [],
  name: 'Fennick, Ada',
  columnKey: 'q1',
  personKey: 'ada',
  assignmentId: 12,
  enrollmentId: 2,
  before: null,
  after: { points: '18', flag: null },
  same: 0,
  blank: 0,
  heldBack: 0,
  column: 'Quiz 1',
  isPicked: true,
  remarks: [],
  result: null,
  ...over,
});
