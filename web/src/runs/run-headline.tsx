import { linesToWrite } from '#core/runs';
import type { RunReply, RunRowsQuery } from '#contract/runs';
import { agreeing, counted } from '#contract/messages';
import { showCount } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import { stageWords } from './run-words';
import { useTimeLeft, workOf } from './use-time-left';

interface RunHeadlineProps {
  readonly run: RunReply;
  /** When the run was last told, in milliseconds. */
  readonly at: number;
  readonly onShow: (query: RunRowsQuery) => void;
}

/** What the run would do or did, and above all what it did not send. */
export function RunHeadline({ run, at, onShow }: RunHeadlineProps) {
  const left = useTimeLeft({ ...workOf(run.state === 'working' ? run : undefined), at });
  const { counts, stage, state, done, total, platform, period, problem } = run;
  const { create, change, skip, refuse } = counts.outcomes;
  if (state === 'working') {
    return (
      <>
        {capitalised(stageWords[stage])} <Strong>{platform}</Strong> into {period}: class{' '}
        {showCount(Math.min(done + 1, total))} of {showCount(total)}
        {problem === null ? left !== null ? `, ${left} left.` : '.' : <> – waiting. {problem}</>}
      </>
    );
  }
  if (state === 'failed' || state === 'stopped')
    return (
      <>
        The run of {platform} {state === 'failed' ? 'could not go on' : 'was stopped'} after {showCount(done)} of{' '}
        {counted(total, 'class')}. {problem} What was kept stays; it goes on where it was.
      </>
    );
  const notSent = (skip > 0 || refuse > 0) && (
    <>
      {' '}
      <FigureButton tone="blocks" onClick={() => onShow({ outcome: 'refuse' })}>
        {counted(refuse, 'row')}
      </FigureButton>{' '}
      refused and{' '}
      <FigureButton tone="warns" onClick={() => onShow({ outcome: 'skip' })}>
        {showCount(skip)}
      </FigureButton>{' '}
      skipped
      {counts.heldBack > 0 && <> hold back {counted(counts.heldBack, 'score')}</>}.
    </>
  );
  if (stage === 'plan') {
    const writes = linesToWrite(counts);
    return (
      <>
        {writes === 0 ? (
          <>
            Nothing of {platform} is new for {period}; {counted(counts.outcomes.same, 'row')}{' '}
            {agreeing(counts.outcomes.same, 'is')} the same.
          </>
        ) : (
          <>
            <FigureButton onClick={() => onShow(create >= change ? { outcome: 'create' } : { outcome: 'change' })}>
              {counted(writes, 'row')}
            </FigureButton>{' '}
            would be written into {period}, {showCount(counts.outcomes.same)} {agreeing(counts.outcomes.same, 'is')} the
            same.
          </>
        )}
        {notSent}
      </>
    );
  }
  const { written, movedOn, undone, stays } = counts.results;
  if (stage === 'undo')
    return (
      <>
        <Strong>{counted(undone, 'row')}</Strong> of {platform} {agreeing(undone, 'was')} undone.{' '}
        {stays > 0 && (
          <>
            <FigureButton tone="warns" onClick={() => onShow({ result: 'stays' })}>
              {showCount(stays)}
            </FigureButton>{' '}
            changed since and {agreeing(stays, 'was')} left alone.
          </>
        )}
      </>
    );
  return (
    <>
      <FigureButton onClick={() => onShow({ result: 'written' })}>{counted(written, 'row')}</FigureButton> of {platform}{' '}
      written into {period}, {showCount(counts.outcomes.same)} {agreeing(counts.outcomes.same, 'was')} the same.
      {movedOn > 0 && (
        <>
          {' '}
          <FigureButton tone="warns" onClick={() => onShow({ result: 'movedOn' })}>
            {showCount(movedOn)}
          </FigureButton>{' '}
          changed here since the plan and {agreeing(movedOn, 'was')} not written.
        </>
      )}
      {notSent}
    </>
  );
}

function capitalised(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
