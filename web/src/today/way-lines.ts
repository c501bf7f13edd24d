import type { PeriodReply } from '#contract/calendar';
import type { FileImportSummaryReply } from '#contract/files';
import { agreeing, counted, listed } from '#contract/messages';
import type { PlatformReply } from '#contract/platforms';
import { doesFileWait } from '#core/files';
import { showCount, showDeadline, showInstant } from '../ui/format';

/** One of the five steps from a scale to a transcript: where it stands, and what to do there. */
export interface WayLine {
  readonly says: string;
  readonly note: string;
  readonly path: string;
  readonly act: string;
  readonly isDone: boolean;
}

/** What is to be known beside the term line. */
export interface WayFacts {
  /** Of the set-up. */
  readonly faults: number;
  readonly platforms: readonly Pick<PlatformReply, 'name' | 'state' | 'open'>[];
  readonly files: readonly Pick<FileImportSummaryReply, 'status'>[];
}

/** Where a period stands on the way to the transcript, step by step. Something must be posted in it. */
export function linesOfWay({ name, posting }: PeriodReply, now: string, facts: WayFacts): WayLine[] {
  const { itemName, sections, sectionsComplete, window, audit, sealedAt } = posting!;
  const isComplete = sectionsComplete === sections;
  const isSealed = sealedAt !== null;
  const { faults } = facts;
  return [
    {
      says: 'Set up',
      note: `${itemName} is reported by ${counted(sections, 'section')}${foundFaults(faults)}.`,
      path: faults > 0 ? 'set-up' : 'report-items',
      act: faults > 0 ? 'Resolve the faults' : 'Look at the rules',
      isDone: sections > 0 && faults === 0,
    },
    { says: 'Map', ...mapped(facts, isSealed) },
    {
      says: 'Collect',
      note: `${showCount(sectionsComplete)} of ${showCount(sections)} sections have every grade${window ? `; the window ${window.state === 'not yet open' ? 'opens' : 'closes'} ${showDeadline(window.state === 'not yet open' ? window.opensAt : window.closesAt, now)}` : ''}.`,
      path: 'grade-sheets?show=blanks',
      act: 'Open the sheets with blanks',
      isDone: isSealed || isComplete,
    },
    {
      says: 'Audit',
      note: audit
        ? `${counted(audit.findings, 'finding')} in the run of ${showInstant(audit.at)}.`
        : `${name} has not been audited yet.`,
      path: 'findings',
      act: audit ? 'Resolve the findings' : 'Run the audit',
      isDone: isSealed || audit?.findings === 0,
    },
    {
      says: 'Transcripts',
      note: isSealed ? `Sealed ${showInstant(sealedAt)}.` : `${name} is not sealed.`,
      path: isSealed ? 'students' : 'seal',
      act: isSealed ? 'See a transcript' : 'See what is missing',
      isDone: isSealed,
    },
  ];
}

function foundFaults(faults: number): string {
  return faults > 0 ? `; ${counted(faults, 'fault')} to resolve` : ', and the check finds no fault';
}

/** What waits of the platforms, and of the files. */
function mapped({ platforms, files }: WayFacts, isSealed: boolean): Omit<WayLine, 'says'> {
  const failed = platforms.filter(({ state }) => state === 'failed');
  const open = platforms.reduce((sum, platform) => sum + platform.open, 0);
  const waiting = files.filter(({ status }) => doesFileWait(status)).length;
  const matches =
    platforms.length === 0
      ? 'No learning platform is connected'
      : `${listed(platforms.map(({ name }) => name))}: ${open > 0 ? `${counted(open, 'match')} ${agreeing(open, 'waits')} for a decision` : 'everything is matched'}`;
  const ofFiles =
    waiting > 0 ? `${counted(waiting, 'file')} ${agreeing(waiting, 'waits')} to be imported` : 'no file waits';
  const unread = failed.map(({ name }) => `; ${name} could not be read`).join('');
  const next =
    failed.length > 0
      ? { path: 'platforms', act: 'See why' }
      : open > 0
        ? { path: 'matches', act: 'Decide the matches' }
        : waiting > 0
          ? { path: 'files', act: 'Look at the files' }
          : platforms.length > 0
            ? { path: 'runs', act: 'Plan a run' }
            : { path: 'files', act: 'Import a file' };
  return {
    note: `${matches}${unread}; ${ofFiles}.`,
    ...next,
    isDone: isSealed || (failed.length === 0 && open === 0 && waiting === 0),
  };
}
