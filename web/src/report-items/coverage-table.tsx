import { useMemo } from 'react';
import type { ReportItemsReply, RulePreviewReply } from '#contract/report-items';
import { DataGrid, type GridColumn } from '../ui/data-grid';
import { showDecimal } from '../ui/format';
import { Empty } from '../ui/panel';
import { RuleSquare } from '../ui/state-marks';
import { lengthWords, levelWords } from './words';

type CourseRow = ReportItemsReply['courses'][number];

interface CoverageTableProps {
  readonly reply: ReportItemsReply;
  readonly preview: RulePreviewReply | undefined;
  readonly onlyLacking: boolean;
}

/** Courses × items: what each course reports and which rule put it there. */
export function CoverageTable({ reply, preview, onlyLacking }: CoverageTableProps) {
  const columns = useMemo((): GridColumn<CourseRow>[] => {
    const added = new Set(preview?.added.map(({ id }) => id));
    const removed = new Set(preview?.removed.map(({ id }) => id));
    const items = reply.items.map((item): GridColumn<CourseRow> => ({
      id: `item ${item.id}`,
      header: item.heading,
      width: '68px',
      align: 'center',
      sortBy: ({ covers }) => covers.filter((cover) => cover.itemId === item.id).length,
      cell: ({ id, covers }) => {
        const rule = reply.rules.findIndex(({ id: ruleId }) =>
          covers.some((cover) => cover.itemId === item.id && cover.ruleId === ruleId),
        );
        if (removed.has(id)) return <RuleSquare look="removed" label="would be removed" />;
        if (added.has(id)) return <RuleSquare look="added" label="would be added" />;
        return rule === -1 ? <span className="text-quiet">none</span> : <RuleSquare label={`by rule ${rule + 1}`} />;
      },
    }));
    return [
      {
        id: 'title',
        header: 'Course',
        sortBy: ({ title }) => title,
        cell: ({ title }) => (
          <b className="font-semibold" title={title}>
            {title}
          </b>
        ),
      },
      {
        id: 'code',
        header: 'Code',
        width: '76px',
        sortBy: ({ code }) => code,
        cell: ({ code }) => <span className="figures">{code}</span>,
      },
      {
        id: 'department',
        header: 'Department',
        width: '142px',
        sortBy: ({ department }) => department,
        cell: ({ department }) => department,
      },
      {
        id: 'level',
        header: 'Level',
        width: '78px',
        sortBy: ({ level }) => level,
        cell: ({ level }) => levelWords[level],
      },
      {
        id: 'length',
        header: 'Length',
        width: '80px',
        sortBy: ({ length }) => length,
        cell: ({ length }) => lengthWords[length],
      },
      {
        id: 'credits',
        header: 'Credits',
        width: '66px',
        align: 'right',
        sortBy: ({ credits }) => Number(credits),
        cell: ({ credits }) => <span className="figures">{showDecimal(credits, 2)}</span>,
      },
      ...items,
    ];
  }, [reply, preview]);
  const rows = useMemo(
    () => (onlyLacking ? reply.courses.filter(({ covers }) => covers.length === 0) : reply.courses),
    [reply, onlyLacking],
  );
  return (
    <DataGrid
      label="Courses and what they report"
      columns={columns}
      rows={rows}
      rowKey={({ id }) => String(id)}
      empty={<Empty title="No course lacks anything">Every course reports the item.</Empty>}
    />
  );
}
