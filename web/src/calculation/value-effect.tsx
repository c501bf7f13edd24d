import { useMemo } from 'react';
import type { ValueEffectReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { AnewWords } from '../scales/effect/anew-words';
import { EffectPicture } from '../scales/effect/effect-picture';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showCount, showLabel, showPercent } from '../ui/format';
import { Strong } from '../ui/page';
import { useInPeopleOrder } from '../ui/people-order';

type StudentEffect = ValueEffectReply['students'][number];

const shown = (percent: string | null, label: string | null) =>
  percent === null ? '–' : `${showPercent(percent)} ${label ? showLabel(label) : 'no label'}`;

const columns: readonly GridColumn<StudentEffect>[] = [
  {
    id: 'student',
    header: 'Student',
    width: '210px',
    sortBy: ({ student }) => student,
    cell: ({ student }) => <b className="font-semibold">{student}</b>,
  },
  { id: 'section', header: 'Section', sortBy: ({ section }) => section, cell: ({ section }) => section },
  {
    id: 'before',
    header: 'now',
    width: '120px',
    align: 'right',
    sortBy: ({ before }) => Number(before ?? -1),
    cell: ({ before, from }) => <span className="figures">{shown(before, from)}</span>,
  },
  {
    id: 'after',
    header: 'would be',
    width: '120px',
    align: 'right',
    sortBy: ({ after }) => Number(after ?? -1),
    cell: ({ after, to }) => <span className="figures font-bold">{shown(after, to)}</span>,
  },
  {
    id: 'label',
    header: 'Label',
    width: '96px',
    sortBy: ({ from, to }) => (from === to ? 1 : 0),
    cell: ({ from, to }) => (from === to ? <span className="text-quiet">stays</span> : <b>changes</b>),
  },
];

/** From which label to which, how many, and who. Nothing where no percentage would change. */
export function ValueEffect({ effect }: { effect: ValueEffectReply }) {
  const inOrder = useInPeopleOrder();
  const rows = useMemo(() => inOrder(effect.students, 'student'), [inOrder, effect.students]);
  if (effect.changed === 0) return null;
  return (
    <div className="space-y-5">
      <EffectPicture effect={effect} />
      <div className="flex h-[230px] flex-col rounded-md border border-hairline">
        <DataGrid
          sortIn={null}
          label="Students whose grade would change"
          columns={columns}
          rows={rows}
          rowKey={({ studentId, section }) => `${studentId} ${section}`}
          empty={null}
        />
      </div>
    </div>
  );
}

/** How many of them would change, and how. */
export function ChangedWords({ effect }: { effect: ValueEffectReply }) {
  const { rise, fall, moved, passAnew, failAnew } = effect;
  return (
    <>
      {showCount(rise)} up, {showCount(fall)} down, and <Strong tone="warns">{counted(moved, 'label')}</Strong>
      {passAnew + failAnew > 0 && '; '}
      <AnewWords passAnew={passAnew} failAnew={failAnew} />
    </>
  );
}
