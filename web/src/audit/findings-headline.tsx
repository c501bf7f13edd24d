import type { Severity } from '#core/audit';
import type { AuditRunReply } from '#contract/audit';
import { agreeing, counted } from '#contract/messages';
import { showCount } from '../ui/format';
import { FigureButton, Strong } from '../ui/page';
import { isSettled, isWaived } from './order-findings';

interface HeadlineProps {
  readonly run: AuditRunReply;
  readonly periodName: string;
  readonly severityOf: ReadonlyMap<string, Severity>;
  readonly onNew: () => void;
  /** Looks at what is gone, and who saw to it. */
  readonly onGone: () => void;
  /** Looks at what was found since. */
  readonly onAdded: () => void;
  readonly onSeverity: (severity: Severity) => void;
}

/** What the run found, in one sentence whose figures filter. */
export function FindingsHeadline({ run, periodName, severityOf, onNew, onGone, onAdded, onSeverity }: HeadlineProps) {
  const { findings, sinceLastRun } = run;
  const open = findings.filter((finding) => !isSettled(finding));
  const waived = findings.filter(isWaived).length;
  const count = (severity: Severity) => open.filter(({ ruleId }) => severityOf.get(ruleId) === severity).length;
  const [blocking, warning, informing] = [count('blocks'), count('warns'), count('informs')];
  return (
    <>
      {blocking === 0 ? (
        <>Nothing blocks the seal of {periodName}</>
      ) : (
        <>
          <FigureButton tone="blocks" onClick={() => onSeverity('blocks')}>
            {counted(blocking, 'finding')}
          </FigureButton>{' '}
          {agreeing(blocking, 'blocks')} the seal of {periodName}
        </>
      )}
      {warning > 0 && (
        <>
          ;{' '}
          <FigureButton tone="warns" onClick={() => onSeverity('warns')}>
            {counted(warning, 'warning')}
          </FigureButton>
        </>
      )}
      {informing > 0 && (
        <>
          {warning > 0 ? ' and ' : '; '}
          <FigureButton tone="informs" onClick={() => onSeverity('informs')}>
            {showCount(informing)}
          </FigureButton>{' '}
          for information
        </>
      )}
      {waived > 0 && (
        <>
          ; <Strong>{showCount(waived)} waived</Strong>
        </>
      )}
      {sinceLastRun && (
        <>
          ; since the run before, <FigureButton onClick={onNew}>{showCount(sinceLastRun.added)}</FigureButton>{' '}
          {agreeing(sinceLastRun.added, 'is')} new, {showCount(sinceLastRun.still)} still there and{' '}
          <FigureButton onClick={onGone}>{showCount(sinceLastRun.gone)} gone</FigureButton>
        </>
      )}
      .
      {run.faults.length > 0 && (
        <>
          {' '}
          <Strong tone="blocks">{counted(run.faults.length, 'rule')}</Strong> could not run: what{' '}
          {run.faults.length === 1 ? 'it' : 'they'} would find is not known.
        </>
      )}
      <LookedAgain run={run} onAdded={onAdded} />
    </>
  );
}

/** What was changed after the audit, and what of its findings is so now. */
function LookedAgain({ run: { findings, changedSince, again }, onAdded }: Pick<HeadlineProps, 'run' | 'onAdded'>) {
  const { isLooked, isBeyond, added } = again;
  const gone = findings.filter(({ isGone }) => isGone).length;
  return (
    <>
      {changedSince > 0 && (
        <>
          {' '}
          <Strong tone="warns">{counted(changedSince, 'grade')}</Strong> changed after it.
        </>
      )}
      {(gone > 0 || added.length > 0) && (
        <>
          {' '}
          By now{gone > 0 && `, ${counted(gone, 'finding')} ${agreeing(gone, 'is')} gone`}
          {gone > 0 && added.length > 0 && ' and'}
          {added.length > 0 && (
            <>
              {' '}
              <FigureButton tone="warns" onClick={onAdded}>
                {gone > 0 ? showCount(added.length) : counted(added.length, 'finding')}
              </FigureButton>{' '}
              {agreeing(added.length, 'is')} new
            </>
          )}
          .
        </>
      )}
      {!isLooked && <> So much was changed that only another audit tells what is so now.</>}
      {isBeyond && <> The set-up, people or grade books were changed too: another audit looks at them.</>}
    </>
  );
}
