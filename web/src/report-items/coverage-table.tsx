import { useMemo } from 'react';
import type { ItemRulesBody, CoveredCourseReply, ExceptionBody, ReportItemsReply } from '#contract/report-items';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Empty } from '../ui/panel';
import { CoverCell } from './cover-cell';
import { lengthWords, levelWords } from './words';

/** A course with what it reports now and what it would report. */
interface CourseRow extends CoveredCourseReply {
  readonly saved: CoveredCourseReply['covers'];
}

interface CoverageTableProps {
  readonly reply: ReportItemsReply;
  /** What the draft would make of each course; undefined without one. */
  readonly previewed: ReadonlyMap<number, CoveredCourseReply['covers']> | undefined;
  readonly assignment: ItemRulesBody;
  readonly filter: (course: CoveredCourseReply) => boolean;
  readonly onChange: (exceptions: ExceptionBody[]) => void;
}

/** Courses × items: what each course reports and what put it there. */
export function CoverageTable({ reply, previewed, assignment, filter, onChange }: CoverageTableProps) {
  const rows = useMemo(
    () =>
      reply.courses.filter(filter).map((course): CourseRow => ({
        ...course,
        saved: course.covers,
        covers: previewed?.get(course.id) ?? course.covers,
      })),
    [reply, previewed, filter],
  );
  const columns = useMemo(
    (): GridColumn<CourseRow>[] => [
      {
        id: 'title',
        header: 'Course',
        sortBy: ({ title }) => title,
        cell: ({ title, code, department, level, length }) => (
          <span title={`${code}, ${department}, ${levelWords[level]}, ${lengthWords[length]}`}>
            <b className="font-semibold">{title}</b>
          </span>
        ),
      },
      ...reply.items.map((item): GridColumn<CourseRow> => ({
        id: `item ${item.id}`,
        header: item.heading,
        width: `${Math.max(58, item.heading.length * 7 + 22)}px`,
        align: 'center',
        sortBy: ({ covers }) => Number(covers.some(({ itemId, reports }) => itemId === item.id && reports)),
        cell: (course) => (
          <CoverCell
            courseId={course.id}
            courseTitle={course.title}
            itemId={item.id}
            itemName={item.name}
            cover={course.covers.find(({ itemId }) => itemId === item.id)}
            reportsNow={course.saved.some(({ itemId, reports }) => itemId === item.id && reports)}
            assignment={assignment}
            onChange={onChange}
          />
        ),
      })),
      {
        id: 'scale',
        header: 'Scale',
        width: '116px',
        sortBy: ({ scaleName }) => scaleName ?? '',
        cell: ({ scaleName }) => scaleName ?? <span className="text-waratah">none</span>,
      },
    ],
    [reply, assignment, onChange],
  );
  return (
    <DataGrid
      label="Courses and what they report"
      columns={columns}
      rows={rows}
      rowKey={({ id }) => String(id)}
      minWidth={300 + reply.items.length * 80}
      empty={
        <Empty title="No matching course">Choose the first figure of the sentence above to see all courses.</Empty>
      }
    />
  );
}
