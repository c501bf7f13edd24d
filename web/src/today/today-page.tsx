import { Link } from 'react-router';
import { isBeingSetUp } from '#core/set-up';
import type { PeriodReply, TermLineReply } from '#contract/calendar';
import { agreeing, counted } from '#contract/messages';
import { useFiles } from '../files/queries';
import { usePlatforms } from '../matching/queries';
import { firstStepLines } from '../set-up/first-step-lines';
import { useFirstSteps, useSetUpCheck } from '../set-up/queries';
import { AwaitedPage } from '../shell/awaited-page';
import { usePeriod, useScope } from '../shell/scope';
import { useMay } from '../shell/access';
import { placeAt } from '../shell/places';
import { showCount, showDeadline, showInstant, showWeekday } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { FillDisc } from '../ui/state-marks';
import { nextDates } from './next-dates';
import { linesOfWay, type WayFacts, type WayLine } from './way-lines';

/** Where the period stands on the way from a scale to a transcript, and what comes next. */
export function TodayPage() {
  const { schoolId, periodId } = useScope();
  const { period, termLine } = usePeriod();
  const queries = [
    useSetUpCheck(period?.id),
    usePlatforms(termLine?.school.id),
    useFiles(periodId),
    useFirstSteps(schoolId, periodId),
  ] as const;
  if (!period || !termLine) return null;
  return (
    <AwaitedPage queries={queries}>
      {({ faults }, platforms, files, counts) =>
        isBeingSetUp(counts) ? (
          <FirstSteps school={termLine.school.shortName} lines={firstStepLines(counts)} />
        ) : period.posting ? (
          <Way period={period} termLine={termLine} facts={{ faults: faults.length, platforms, files }} />
        ) : (
          <NothingPosted period={period} />
        )
      }
    </AwaitedPage>
  );
}

/** The way of a new school to its first grade. */
function FirstSteps({ school, lines }: { readonly school: string; readonly lines: readonly WayLine[] }) {
  const next = lines.find(({ isDone }) => !isDone)!;
  const done = lines.filter(({ isDone }) => isDone).length;
  return (
    <Page
      headline={
        <>
          <Strong>{done}</Strong> of {lines.length} first steps of {school} are done; the next one is{' '}
          <Strong tone="informs">{next.act}</Strong>.
        </>
      }
      below="Each can be typed, pasted from a spreadsheet or imported from a file. What is done can be changed and undone at any time."
    >
      <Panel label="First steps">
        <ol>
          {lines.map((line) => (
            <Line key={line.path} line={line} isNext={line === next} />
          ))}
        </ol>
      </Panel>
    </Page>
  );
}

interface WayProps {
  readonly period: PeriodReply;
  readonly termLine: TermLineReply;
  readonly facts: WayFacts;
}

function Way({ period, termLine, facts }: WayProps) {
  const lines = linesOfWay(period, termLine.now, facts);
  const next = lines.find(({ isDone }) => !isDone);
  return (
    <Page headline={<TodayHeadline period={period} termLine={termLine} faults={facts.faults} />}>
      <div className="grid items-start gap-3.5 min-[1180px]:grid-cols-[minmax(0,1fr)_300px]">
        <Panel label="The way to the transcript">
          <ol>
            {lines.map((line) => (
              <Line key={line.says} line={line} isNext={line === next} />
            ))}
          </ol>
        </Panel>
        <Panel label="Next dates" className="px-5 py-4">
          <h2 className="mb-2 font-bold">Next dates</h2>
          <ol className="space-y-2.5">
            {nextDates(termLine, 6).map(({ at, says, inDays }) => (
              <li key={says} className="flex items-baseline gap-3">
                <span className="figures w-[60px] shrink-0 text-right text-[13px]">{daysAway(inDays)}</span>
                <span>
                  <span className="block first-letter:uppercase">{says}</span>
                  <span className="text-[13px] text-quiet">{showWeekday(at)}</span>
                </span>
              </li>
            ))}
          </ol>
        </Panel>
      </div>
    </Page>
  );
}

function daysAway(days: number): string {
  return days === 0 ? 'today' : counted(days, 'day');
}

interface TodayHeadlineProps {
  readonly period: PeriodReply;
  readonly termLine: TermLineReply;
  /** Of the set-up. */
  readonly faults: number;
}

function TodayHeadline({ period, termLine, faults }: TodayHeadlineProps) {
  const { path } = useScope();
  const { sections, sectionsComplete, window, sealedAt } = period.posting!;
  const left = sections - sectionsComplete;
  if (sealedAt) {
    return (
      <>
        {period.name} is <Strong>sealed</Strong> since {showInstant(sealedAt)}.
      </>
    );
  }
  return (
    <>
      <Figure to={path('grade-sheets')}>
        {showCount(sectionsComplete)} of {counted(sections, 'section')}
      </Figure>{' '}
      are complete for {period.name}
      {left > 0 && (
        <>
          ;{' '}
          <Figure tone="warns" to={path('grade-sheets?show=blanks')}>
            {showCount(left)}
          </Figure>{' '}
          {agreeing(left, 'is')} not
        </>
      )}
      {window?.state === 'open' && (
        <>
          , and the window closes <Strong tone="informs">{showDeadline(window.closesAt, termLine.now)}</Strong>
        </>
      )}
      {window?.state === 'not yet open' && `, and the window opens ${showDeadline(window.opensAt, termLine.now)}`}
      {faults > 0 && (
        <>
          ; the set-up has{' '}
          <Figure tone="warns" to={path('set-up')}>
            {counted(faults, 'fault')}
          </Figure>
        </>
      )}
      .
    </>
  );
}

/** A period without a report item, such as a year that is being set up. */
function NothingPosted({ period }: { period: PeriodReply }) {
  const { path } = useScope();
  return (
    <Page headline={`Nothing is posted in ${period.name} yet.`}>
      <Empty title="No report item asks for grades here">
        Items say in which periods they are posted, and rules which courses report them.
        <p className="mt-3 flex justify-center gap-5">
          {(
            [
              ['report-items', 'Report items'],
              ['calendar', 'Calendar'],
              ['set-up', 'Check of the set-up'],
            ] as const
          ).map(([place, name]) => (
            <Link key={place} to={path(place)} className="font-semibold text-eucalypt hover:underline">
              {name}
            </Link>
          ))}
        </p>
      </Empty>
    </Page>
  );
}

function Line({ line, isNext }: { line: WayLine; isNext: boolean }) {
  const { path } = useScope();
  const may = useMay();
  const place = placeAt(path(line.path.split('?')[0]!));
  const isForLooking = place?.change !== undefined && !may(place.change);
  return (
    <li
      className={`flex items-center gap-4 border-t border-hairline px-5 py-4 first:border-t-0 ${isNext ? 'bg-eucalypt-soft' : ''}`}
    >
      <FillDisc done={line.isDone ? 1 : 0} of={1} />
      <div className="flex-1">
        <p className="font-bold">
          {line.says}
          {isNext && <span className="ml-2 rounded bg-eucalypt px-1.5 py-px text-[12px] text-on-eucalypt">next</span>}
        </p>
        <p className="text-quiet">{line.note}</p>
      </div>
      <Link
        to={path(line.path)}
        className={`rounded-md border px-3 py-1.5 font-semibold ${isNext ? 'border-eucalypt bg-eucalypt text-on-eucalypt' : 'border-hairline bg-surface hover:border-control'}`}
      >
        {isForLooking ? 'Look' : line.act}
      </Link>
    </li>
  );
}
