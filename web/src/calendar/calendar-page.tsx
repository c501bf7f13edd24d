import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { calendarFaultSentence, type CalendarReply } from '#contract/calendar';
import { HistoryButton } from '../changes/history-button';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { SetUpNote } from '../set-up/set-up-note';
import { NoPage, PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { useChoosePeriod, usePeriod, useScope } from '../shell/scope';
import { Changeable } from '../ui/changeable';
import { Button, Key } from '../ui/button';
import { ViewSwitch } from '../ui/field';
import { showDay } from '../ui/format';
import { Page } from '../ui/page';
import { Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { BreakList } from './break-list';
import { bodyOfCalendar, calendarDrafts, type CalendarBody } from './calendar-drafts';
import { CalendarHeadline } from './calendar-headline';
import { calendarFaults, periodViews, yearBeside, yearOfPeriod, yearsOf } from './calendar-view';
import { CopyYearDialog } from './copy-year-dialog';
import { PeriodTable } from './period-table';
import { useCalendars, useSaveCalendar } from './queries';
import { dayOfInstant } from '../ui/day/zone-time';
import { WindowList } from './window-list';
import { YearAxis } from './year-axis';

/** The calendars of all schools side by side; the chosen school's is edited. */
export function CalendarPage() {
  const { schoolId } = useScope();
  const kept = useCalendars();
  const { data: calendars } = kept;
  const { termLine } = usePeriod();
  const own = calendars?.find(({ school }) => school.id === schoolId);
  if (calendars && !own) return <NoPage />;
  if (!calendars || !own || !termLine) return <PageFace queries={[kept]} />;
  return <CalendarDesk key={schoolId} calendars={calendars} calendar={own} today={dayOfInstant(termLine.now)} />;
}

interface DeskProps {
  readonly calendars: readonly CalendarReply[];
  readonly calendar: CalendarReply;
  readonly today: string;
}

function CalendarDesk({ calendars, calendar, today }: DeskProps) {
  const { schoolId, periodId } = useScope();
  const navigate = useNavigate();
  const choosePeriod = useChoosePeriod();
  const drafts = calendarDrafts.useAll();
  const [search, setSearch] = useSearchParams();
  const [isCopying, setCopying] = useState(false);
  const save = useSaveCalendar(schoolId);
  const tellOfChange = useTellOfChange();
  const saved = useMemo(() => bodyOfCalendar(calendar), [calendar]);
  const draft = calendarDrafts.use(schoolId, saved);
  const body: CalendarBody = draft?.now ?? saved;
  const chosenId = Number(search.get('period')) || periodId;
  const year = yearOfPeriod(body, chosenId) ?? yearOfPeriod(body, periodId) ?? yearsOf(body)[0];
  const views = useMemo(() => (year ? periodViews(calendar, body, year) : []), [calendar, body, year]);
  const chosen = views.find(({ period }) => period.id === chosenId) ?? views[0];
  const faults = calendarFaults(calendar, body);
  const blocking = faults.filter(({ severity }) => severity === 'blocks');
  const isStale = draft !== undefined && draft.basedOn !== calendar.revision;
  const canSave = draft !== undefined && blocking.length === 0 && !isStale && !save.isPending;
  const saveDraft = () => {
    if (!canSave) return;
    const { weekdays, periods, breaks, windows } = body;
    // A page whose period goes with the save is gone before the answer is: what follows must not hang on it.
    void save
      .mutateAsync({
        revision: draft.basedOn,
        weekdays: [...weekdays],
        periods: [...periods],
        breaks: [...breaks],
        windows: [...windows],
      })
      .then((after) => {
        calendarDrafts.settle(schoolId, body, after.revision);
        tellOfChange(`The calendar of ${calendar.school.shortName} is saved.`, after);
      }, showProblem);
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the calendar', inFields: true, act: saveDraft },
    { key: 'u', says: 'undo the last step of the draft', act: () => calendarDrafts.undo(schoolId) },
  ]);
  if (!year) return null;
  const choose = (school: number, period: number) => {
    if (school === schoolId) setSearch({ period: String(period) });
    else void navigate(`/school/${school}/period/${period}/calendar`);
  };
  const schools = calendars.map((each) => {
    const own = drafts[each.school.id]?.now ?? bodyOfCalendar(each);
    const beside = each.school.id === schoolId ? year : yearBeside(own, year);
    return { calendar: each, body: own, views: beside ? periodViews(each, own, beside) : [] };
  });
  const years = yearsOf(body);
  return (
    <Page
      headline={
        <CalendarHeadline
          schoolName={calendar.school.shortName}
          year={year}
          views={views}
          chosen={chosen}
          today={today}
        />
      }
      actions={
        draft ? (
          <>
            <Button look="main" disabled={!canSave} onClick={saveDraft}>
              Save the calendar <Key>Ctrl S</Key>
            </Button>
            <Button writes onClick={() => calendarDrafts.undo(schoolId)}>
              Undo last step
            </Button>
            <Button writes onClick={() => calendarDrafts.discard(schoolId)}>
              Discard
            </Button>
          </>
        ) : (
          <>
            <Button look="main" onClick={() => setCopying(true)}>
              Copy onto the next year
            </Button>
            <HistoryButton thing={`calendar ${schoolId}`} called={`the calendar of ${calendar.school.shortName}`} />
          </>
        )
      }
      aside={
        years.length > 1 && (
          <ViewSwitch
            label="Year"
            views={years.map(({ id, name }) => [String(id), name] as const)}
            chosen={String(year.id)}
            onChoose={(id) => choosePeriod(Number(id))}
          />
        )
      }
    >
      {!draft && <SetUpNote place="calendar" />}
      <Panel label="Calendars of all schools">
        <YearAxis
          schools={schools}
          chosenSchoolId={schoolId}
          chosenPeriodId={chosen?.period.id}
          today={today}
          onChoose={choose}
        />
      </Panel>
      {isStale && (
        <Note tone="blocks" title="Someone else saved this calendar">
          <Button onClick={() => calendarDrafts.rebase(schoolId, calendar.revision)}>Go on from what is saved</Button>
        </Note>
      )}
      {draft && faults.length > 0 && (
        <Note
          tone={blocking.length > 0 ? 'blocks' : 'warns'}
          title={blocking.length > 0 ? 'The calendar cannot be saved like this' : 'To know before saving'}
        >
          {faults.slice(0, 5).map((fault) => (
            <p key={`${fault.of} ${fault.id} ${fault.code}`}>{calendarFaultSentence(fault, showDay)}</p>
          ))}
        </Note>
      )}
      <div className="grid items-start gap-3.5 min-[1180px]:grid-cols-[minmax(0,1fr)_440px]">
        <Panel label="Periods" className={draft ? 'border-l-[3px] border-l-wattle-fill' : ''}>
          <Changeable>
            <PeriodTable
              calendar={calendar}
              body={body}
              views={views}
              chosenId={chosen?.period.id}
              onChoose={(id) => id !== chosenId && setSearch({ period: String(id) }, { replace: true })}
            />
          </Changeable>
        </Panel>
        <div className="space-y-3.5">
          {chosen && (
            <Panel label="Posting windows">
              <Changeable>
                <WindowList calendar={calendar} body={body} view={chosen} />
              </Changeable>
            </Panel>
          )}
          <Panel label="Breaks">
            <Changeable>
              <BreakList calendar={calendar} body={body} year={year} />
            </Changeable>
          </Panel>
        </div>
      </div>
      {isCopying && (
        <CopyYearDialog calendars={calendars} onClose={() => setCopying(false)} onCopied={() => setCopying(false)} />
      )}
    </Page>
  );
}
