import { useMemo } from 'react';
import type { ScaleEffectReply, StudentEffectReply } from '#contract/scales';
import { DataGrid, type GridColumn } from '../../ui/grid/data-grid';
import { showLabel, showPercent } from '../../ui/format';
import { useInPeopleOrder } from '../../ui/people-order';

const shown = (label: string | null) => (label === null ? 'none' : showLabel(label));
const columns: readonly GridColumn<StudentEffectReply>[] = [
  {
    id: 'student',
    header: 'Student',
    width: '190px',
    sortBy: ({ student }) => student,
    cell: ({ student }) => <b className="font-semibold">{student}</b>,
  },
  {
    id: 'changes',
    header: 'Labels that would change',
    cell: ({ changes }) =>
      changes
        .map(
          ({ item, section, percent, from, to }) =>
            `${section}, ${item}: ${percent ? `${showPercent(percent)} ` : ''}${shown(from)} → ${shown(to)}`,
        )
        .join('; '),
  },
  {
    id: 'before',
    header: 'GPA now',
    width: '82px',
    align: 'right',
    sortBy: ({ gpaBefore }) => Number(gpaBefore ?? -1),
    cell: ({ gpaBefore }) => <span className="figures">{gpaBefore ?? '–'}</span>,
  },
  {
    id: 'after',
    header: 'would be',
    width: '82px',
    align: 'right',
    sortBy: ({ gpaAfter }) => Number(gpaAfter ?? -1),
    cell: ({ gpaAfter }) => <span className="figures font-bold">{gpaAfter ?? '–'}</span>,
  },
];

/** The students concerned, with each label that would change and their GPA of the period. */
export function EffectStudents({ effect }: { effect: ScaleEffectReply }) {
  const inOrder = useInPeopleOrder();
  const rows = useMemo(() => inOrder(effect.students, 'student'), [inOrder, effect.students]);
  if (effect.students.length === 0) return null;
  return (
    <div className="flex h-[230px] flex-col rounded-md border border-hairline">
      <DataGrid
        sortIn={null}
        label="Students whose labels would change"
        columns={columns}
        rows={rows}
        rowKey={({ studentId }) => String(studentId)}
        empty={null}
      />
    </div>
  );
}
