import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { CourseImportReply, CoursesReply } from '#contract/courses';
import { counted } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { SetUpNote } from '../set-up/set-up-note';
import { PageFace } from '../shell/awaited-page';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Button, Key } from '../ui/button';
import { Page } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { useKeptRows } from '../ui/grid/use-kept-rows';
import { useKeys } from '../ui/use-keys';
import { useTextInAddress } from '../ui/address/use-text-in-address';
import { CopySetUpDialog } from './copy-set-up-dialog';
import { courseDrafts, noChanges } from './course-drafts';
import { CourseGrid } from './course-grid';
import { courseRows, requestOf, withEdits, withNewRow, withPlan, withoutRows, type CourseRow } from './course-sheet';
import { DefaultsDialog } from './defaults-dialog';
import { ImportCoursesDialog } from './import-courses-dialog';
import { useCourses, useSaveCourses } from './queries';
import { SetValueBar } from './set-value-bar';
import { CourseFilter } from './course-filter';
import { ExportLinks, ImportButton } from './course-files';
import { CoursesHeadline } from './courses-headline';
import { StaleCourses } from './stale-courses';

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
  const changes = courseDrafts.use(schoolId)?.now ?? noChanges;
  const [search, setSearch] = useSearchParams();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [dialog, setDialog] = useState<'defaults' | 'copy' | undefined>();
  const [plan, setPlan] = useState<CourseImportReply | undefined>();
  const save = useSaveCourses(schoolId);
  const tellOfChange = useTellOfChange();
  const all = useMemo(() => courseRows(reply, changes), [reply, changes]);
  const department = search.get('department');
  const [text, onText] = useTextInAddress('text');
  const shown = useMemo(() => all.filter((row) => isShown(row, department, text)), [all, department, text]);
  const rows = useKeptRows(shown, ({ key }) => key);
  const faulty = all.filter(({ faults }) => Object.keys(faults).length > 0);
  const departments = [...new Set(reply.courses.map(({ cells }) => cells.department))];
  const count = Object.keys(changes.cells).length + changes.removed.length;
  const savedOf = (key: string) => reply.courses.find(({ id }) => String(id) === key);
  const stale = Object.keys(changes.revisions).filter((key) => savedOf(key)?.revision !== changes.revisions[key]);
  const chosen = all.filter(({ key }) => marked.has(key));
  const change = (next: typeof changes) => courseDrafts.change(schoolId, null, noChanges, next);
  const canSave = count > 0 && faulty.length === 0 && stale.length === 0 && !save.isPending;
  const store = () => {
    if (!canSave) return;
    save.mutate(requestOf(changes), {
      onSuccess: (after) => {
        courseDrafts.discard(schoolId);
        setMarked(new Set());
        tellOfChange(`${counted(count, 'course')} saved.`, after);
      },
      onError: (error) => {
        if (error instanceof ProblemError && error.problem.errors[0])
          toast.error(error.problem.title, { description: error.problem.errors[0].detail });
        else showProblem(error);
      },
    });
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the courses', inFields: true, act: store },
    { key: 'Ctrl+d', says: 'fill the range down from its first row', act: () => undefined },
    { key: 'Ctrl+z', says: 'undo the last step', act: () => courseDrafts.undo(schoolId) },
  ]);
  const filterBy = (key: string, value: string) =>
    setSearch((before) => searchWith(before, { [key]: value }), { replace: true });
  /** The new row has the cursor, wherever it stands. */
  const addCourse = () => {
    const next = withNewRow(changes, rows.at(-1));
    change(next);
    filterBy(
      'course',
      Object.keys(next.cells).find((key) => !(key in changes.cells))!,
    );
  };
  const takePlan = () => {
    if (!plan) return;
    change(withPlan(changes, plan, all));
    setPlan(undefined);
  };
  return (
    <Page
      headline={
        <CoursesHeadline
          schoolName={schoolName}
          courses={reply.courses.length}
          departments={departments.length}
          changed={count}
          faulty={faulty.length}
        />
      }
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={store}>
            Save {count > 0 ? counted(count, 'course') : 'courses'} <Key>Ctrl S</Key>
          </Button>
          {count > 0 && (
            <>
              <Button onClick={() => courseDrafts.undo(schoolId)}>Undo last step</Button>
              <Button onClick={() => courseDrafts.discard(schoolId)}>Discard</Button>
            </>
          )}
          <Button onClick={addCourse}>New course</Button>
          <Button onClick={() => setDialog('defaults')}>Defaults</Button>
          <ImportButton schoolId={schoolId} onPlan={setPlan} />
        </>
      }
      aside={<ExportLinks schoolId={schoolId} />}
    >
      <SetUpNote place="courses" />
      <StaleCourses
        titles={stale.map((key) => savedOf(key)?.cells.title ?? key)}
        onKeep={() =>
          change({
            ...changes,
            revisions: Object.fromEntries(
              Object.keys(changes.revisions).map((key) => [key, savedOf(key)?.revision ?? '']),
            ),
          })
        }
      />
      <Panel className="flex min-h-[300px] flex-1 flex-col">
        <CourseFilter
          departments={departments}
          department={department ?? ''}
          text={text}
          onDepartment={(to) => filterBy('department', to)}
          onText={onText}
        />
        {chosen.length > 0 && (
          <SetValueBar
            count={chosen.length}
            history={
              chosen.length === 1 && chosen[0]!.reply
                ? { thing: `course ${chosen[0]!.reply.id}`, called: chosen[0]!.cells.title }
                : undefined
            }
            onSet={(field, value) =>
              change(
                withEdits(
                  changes,
                  chosen.map((row) => [row, field, value] as const),
                ),
              )
            }
            onRemove={() => {
              change(withoutRows(changes, chosen));
              setMarked(new Set());
            }}
            onCopySetUp={chosen.length === 1 && chosen[0]!.reply ? () => setDialog('copy') : undefined}
            onClear={() => setMarked(new Set())}
          />
        )}
        {rows.length === 0 ? (
          <Empty title={reply.courses.length === 0 ? 'No course yet' : 'No matching course'}>
            {reply.courses.length === 0
              ? 'Make the first one with “New course”, or import a CSV or XLSX file with a column for the code.'
              : 'Choose the figure in the sentence above to see all of them.'}
          </Empty>
        ) : (
          <CourseGrid
            key={search.get('course')}
            rows={rows}
            marked={marked}
            sought={search.get('course')}
            onMark={(keys, isMarked) =>
              setMarked(
                (before) => new Set(isMarked ? [...before, ...keys] : [...before].filter((key) => !keys.includes(key))),
              )
            }
            onEdit={(edits) => change(withEdits(changes, edits))}
          />
        )}
      </Panel>
      {plan && <ImportCoursesDialog plan={plan} onTake={takePlan} onClose={() => setPlan(undefined)} />}
      {dialog === 'defaults' && (
        <DefaultsDialog schoolId={schoolId} reply={reply} onClose={() => setDialog(undefined)} />
      )}
      {dialog === 'copy' && chosen[0]?.reply && (
        <CopySetUpDialog source={chosen[0].reply} courses={reply.courses} onClose={() => setDialog(undefined)} />
      )}
    </Page>
  );
}

function isShown({ cells, reply }: CourseRow, department: string | null, text: string): boolean {
  if (!reply) return true;
  const wanted = text.trim().toLowerCase();
  return (
    (department === null || cells.department === department) &&
    (wanted === '' || `${cells.title} ${cells.code}`.toLowerCase().includes(wanted))
  );
}
