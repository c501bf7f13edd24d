import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useBlocker, useNavigate, useParams, useSearchParams } from 'react-router';
import type { RegisterReply } from '#contract/attendance';
import { counted, listed } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { LeaveDialog } from '../posting/leave-dialog';
import { PageFace } from '../shell/awaited-page';
import { ProblemNote } from '../shell/problem-note';
import { useScope } from '../shell/scope';
import { showProblem } from '../shell/show-problem';
import { searchWith } from '../ui/address/search-with';
import { Button, Key } from '../ui/button';
import { showDay } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { Empty, Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { useAttendance, useRegister, useSaveRegisters } from './queries';
import { RegisterGrid } from './register-grid';
import { useRegisterDraft } from './use-register-draft';

/** A week of a section's attendance. */
export function RegisterPage() {
  const sectionId = Number(useParams()['sectionId']);
  const [search] = useSearchParams();
  const { periodId } = useScope();
  const read = useRegister(sectionId, search.get('day'));
  if (!read.data) return <PageFace queries={[read]} />;
  return <Register key={`${sectionId}/${periodId}`} register={read.data} />;
}

function Register({ register }: { register: RegisterReply }) {
  const { sectionId, section, days, today, students } = register;
  const draft = useRegisterDraft(register);
  const save = useSaveRegisters(sectionId);
  const tellOfChange = useTellOfChange();
  const { path } = useScope();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const { data: list } = useAttendance();
  const isReadOnly = !register.mayTake || !register.takesAttendance;
  const { unsaved, faults } = draft;
  const goTo = (day: string | null) => setSearch((before) => searchWith(before, { day }));
  const next = list?.sections[list.sections.findIndex((each) => each.sectionId === sectionId) + 1];
  const goNext = () => next && void navigate(path(`attendance/${next.sectionId}?${search}`));
  const saveAll = () => {
    if (unsaved === 0 || save.isPending || isReadOnly) return;
    const sent = draft.drafts;
    save.mutate(
      { days: draft.body() },
      {
        onSuccess: (saved) => {
          draft.settle(sent, saved);
          tellOfChange(`${counted(Object.keys(sent).length, 'register')} of ${section} saved.`, saved);
        },
        onError: showProblem,
      },
    );
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the attendance', inFields: true, act: saveAll },
    { key: 'Ctrl+z', says: 'undo the last entry', act: draft.undo },
    { key: 't', says: 'all present on the last day that is not taken', act: () => takeLast() },
    { key: ',', says: 'the week before', act: () => register.weekBefore && goTo(register.weekBefore) },
    { key: '.', says: 'the week after', act: () => register.weekAfter && goTo(register.weekAfter) },
    { key: 'm', says: 'the next section', act: goNext },
  ]);
  const past = days.filter(({ day }) => day <= today);
  const takeLast = () => {
    const last = past.findLast(({ day }) => !draft.isTaken(day));
    if (last && !isReadOnly) draft.allPresent(last.day);
  };
  const taken = past.filter((each) => each.taken !== null).length;
  const open = unsaved + faults.length;
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => open > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  return (
    <Page
      headline={
        <>
          Attendance of <Figure to={path('attendance')}>{section}</Figure>
          {days.length > 0 && (
            <>
              , {showDay(days[0]!.day)} to {showDay(days.at(-1)!.day)}: taken on{' '}
              <Strong>
                {taken} of {counted(past.length, 'day')}
              </Strong>{' '}
              so far
            </>
          )}
          {unsaved > 0 && (
            <>
              , <Strong tone="warns">{unsaved} unsaved</Strong>
            </>
          )}
          .
        </>
      }
      actions={
        <>
          {!isReadOnly && (
            <>
              <Button look="main" disabled={unsaved === 0 || save.isPending} onClick={saveAll}>
                Save {unsaved > 0 ? unsaved : ''} <Key>Ctrl S</Key>
              </Button>
              <Button disabled={past.every(({ day }) => draft.isTaken(day))} onClick={takeLast}>
                All present <Key>T</Key>
              </Button>
              <Button disabled={unsaved === 0} onClick={draft.undo}>
                Undo last step
              </Button>
            </>
          )}
          <Button writes={false} disabled={register.weekBefore === null} onClick={() => goTo(register.weekBefore)}>
            <ChevronLeft size={14} aria-hidden /> Week before
          </Button>
          <Button writes={false} disabled={register.weekAfter === null} onClick={() => goTo(register.weekAfter)}>
            Week after <ChevronRight size={14} aria-hidden />
          </Button>
          <Button writes={false} disabled={!next} onClick={goNext}>
            Next section <Key>M</Key>
          </Button>
        </>
      }
      below={
        register.takesAttendance
          ? 'P present, A absent, E excused, L late. A letter fills the cell and goes on to the next student; on a day that is taken everybody else was present.'
          : 'This school takes no attendance; what was taken before stands here to be read.'
      }
    >
      <ProblemNote error={save.error} />
      {draft.stale.length > 0 && (
        <div role="alert">
          <Note tone="warns" title="Someone else took attendance here meanwhile">
            <p>
              {listed(draft.stale.map(({ day, taken }) => `${showDay(day)}${taken ? ` by ${taken.by}` : ''}`))}. What
              you typed is kept; the columns show yours.
            </p>
            <p className="mt-2 flex gap-2">
              <Button onClick={draft.keepMine}>Keep mine over theirs</Button>
              <Button onClick={draft.takeTheirs}>Discard mine</Button>
            </p>
          </Note>
        </div>
      )}
      <Panel className="flex min-h-0 flex-1 flex-col overflow-hidden">
        {days.length === 0 || students.length === 0 ? (
          <Empty title={days.length === 0 ? 'No classes this week' : 'Nobody sits in this section'}>
            {days.length === 0
              ? 'Neither the calendar nor the section has a school day here.'
              : 'Enrollments say who sits in it, and from when.'}
          </Empty>
        ) : (
          <RegisterGrid register={register} draft={draft} isReadOnly={isReadOnly} />
        )}
      </Panel>
      <LeaveDialog blocker={blocker} unsaved={open} onForget={draft.discard} />
    </Page>
  );
}
