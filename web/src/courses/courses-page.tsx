import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router';
import { courseFields, courseLengths, courseLevels, type CourseField } from '#core/courses';
import type { CourseReply, CoursesReply } from '#contract/courses';
import { CellTableDesk } from '../cell-tables/cell-table-desk';
import { SetValueBar } from '../cell-tables/set-value-bar';
import { TableFilter } from '../cell-tables/table-filter';
import type { TableRow } from '../cell-tables/table-look';
import { usePlanRows } from '../cell-tables/use-plan-rows';
import { SetUpNote } from '../set-up/set-up-note';
import { PageFace } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { Button } from '../ui/button';
import { Empty } from '../ui/panel';
import { CopySetUpDialog } from './copy-set-up-dialog';
import { courseLook } from './course-look';
import { CoursesHeadline } from './courses-headline';
import { DefaultsDialog } from './defaults-dialog';
import { useCourses, useCourseTable } from './queries';

/** The facts of all courses, edited as in a spreadsheet. */
export function CoursesPage() {
  const { schoolId } = useScope();
  const { termLine } = usePeriod();
  const courses = useCourses(schoolId);
  const { data: reply } = courses;
  if (!reply || !termLine) return <PageFace queries={[courses]} />;
  return <CoursesDesk key={schoolId} schoolId={schoolId} schoolName={termLine.school.shortName} reply={reply} />;
}

interface DeskProps {
  readonly schoolId: number;
  readonly schoolName: string;
  readonly reply: CoursesReply;
}

function CoursesDesk({ schoolId, schoolName, reply }: DeskProps) {
  const [search, setSearch] = useSearchParams();
  const [dialog, setDialog] = useState<{ readonly copyOf: CourseReply } | 'defaults' | undefined>();
  const department = search.get('department');
  const [text, onText] = useTextInAddress('text');
  const isShown = useCallback(
    ({ cells }: TableRow<CourseField, CourseReply>) =>
      (department === null || cells.department === department) &&
      `${cells.title} ${cells.code}`.toLowerCase().includes(text.trim().toLowerCase()),
    [department, text],
  );
  const departments = [...new Set(reply.courses.map(({ cells }) => cells.department))];
  return (
    <>
      <CellTableDesk
        of={useCourseTable(schoolId)}
        kept={reply.courses}
        plan={usePlanRows<CourseField>(`/schools/${schoolId}/courses/import`)}
        exportAddress={`/schools/${schoolId}/courses/export`}
        headline={(counts) => (
          <CoursesHeadline
            schoolName={schoolName}
            courses={reply.courses.length}
            departments={departments.length}
            {...counts}
          />
        )}
        beginsWith={beginsLike}
        isShown={isShown}
        filter={
          <TableFilter
            choices={[
              {
                label: 'Department shown',
                value: department ?? '',
                options: [['', 'all departments'], ...departments.map((name) => [name, name] as const)],
                onChange: (to) => setSearch((before) => searchWith(before, { department: to }), { replace: true }),
              },
            ]}
            label="Title or code"
            text={text}
            onText={onText}
          >
            Type to replace, Enter to edit, paste a block, Ctrl D fills down, Space selects. Grey italics are inherited.
          </TableFilter>
        }
        moreActions={
          <Button writes onClick={() => setDialog('defaults')}>
            Defaults
          </Button>
        }
        note={<SetUpNote place="courses" />}
        bar={(selected) => {
          const one = selected.rows.length === 1 ? selected.rows[0]!.reply : undefined;
          return (
            <SetValueBar
              look={courseLook}
              thing="course"
              selected={selected}
              settable={settable}
              choices={choices}
              whenEmpty="inherited"
            >
              {one && (
                <Button writes onClick={() => setDialog({ copyOf: one })}>
                  Copy its set-up to others
                </Button>
              )}
            </SetValueBar>
          );
        }}
        empty={
          <Empty title={reply.courses.length === 0 ? 'No course yet' : 'No matching course'}>
            {reply.courses.length === 0
              ? 'Make the first one with “New course”, or import a CSV or XLSX file with a column for the code.'
              : 'Choose the figure in the sentence above to see all of them.'}
          </Empty>
        }
      />
      {dialog === 'defaults' && (
        <DefaultsDialog schoolId={schoolId} reply={reply} onClose={() => setDialog(undefined)} />
      )}
      {typeof dialog === 'object' && (
        <CopySetUpDialog source={dialog.copyOf} courses={reply.courses} onClose={() => setDialog(undefined)} />
      )}
    </>
  );
}

const settable = [
  'department' as const,
  ...courseFields.filter((field) => !['code', 'title', 'department'].includes(field)),
];
const choices: Readonly<Partial<Record<CourseField, readonly string[]>>> = {
  level: courseLevels,
  length: courseLengths,
  onTranscript: ['', 'yes', 'no'],
  countsInGpa: ['', 'yes', 'no'],
  allowsExempt: ['', 'yes', 'no'],
};

/** A new course begins in the department of the row it comes after. */
function beginsLike(beside: TableRow<CourseField, CourseReply> | undefined) {
  const { department = '', kind = '', level = 'regular', length = 'year' } = beside?.cells ?? {};
  return { department, kind, level, length };
}
