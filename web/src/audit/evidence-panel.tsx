import type { ReactNode } from 'react';
import type { AuditRuleReply, FindingReply } from '#contract/audit';
import { Button, Key } from '../ui/button';
import { showComputed, showDay, showInstant, showLabel, showPercent } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';
import { placeOfFinding } from './finding-place';
import { isSettled } from './order-findings';
import { WaiverNote } from './waiver-note';

interface EvidencePanelProps {
  readonly finding: FindingReply;
  readonly rule: AuditRuleReply;
  readonly mayWaive: boolean;
  readonly mayMend: boolean;
  readonly onOpen: () => void;
  /** Looks at the section beside its sisters; null where the finding is about no sheet. */
  readonly onCompare: (() => void) | null;
  readonly onMend: () => void;
  readonly onWaive: () => void;
  readonly onSend: () => void;
  readonly onNote: () => void;
  readonly onEndWaiver: () => void;
}

/** What one finding rests on, the way to what it is about, and whether somebody let it stand. */
export function EvidencePanel(props: EvidencePanelProps) {
  const { finding, rule, mayWaive, mayMend, onOpen, onCompare, onMend, onWaive, onSend, onNote, onEndWaiver } = props;
  const { mark, computed } = finding;
  return (
    <section aria-label="Evidence" className="overflow-auto border-l border-hairline bg-raised px-5 py-4">
      <p className="text-[13px] text-quiet">
        {[...new Set([finding.subject, finding.section, finding.itemName])].filter(Boolean).join(' · ')}
      </p>
      <h2 className="mt-1 text-[17px] leading-snug font-bold text-pretty">{finding.sentence}</h2>
      {finding.isGone && (
        <p className="mt-1.5 text-[13px] text-eucalypt">
          It is gone: what was changed after the audit was looked at again. The next audit leaves it out.
        </p>
      )}
      <dl className="mt-3 rounded-md border border-hairline bg-surface text-[13px]">
        {mark && (
          <>
            <Line says="Computed">{computed ? `${showComputed(computed)} %` : 'nothing'}</Line>
            <Line says="Posted percentage">{mark.percent ? `${showPercent(mark.percent)} %` : 'blank'}</Line>
            <Line says="Posted label or code">{mark.code ?? (mark.label ? showLabel(mark.label) : 'blank')}</Line>
            <Line says="Last date">{mark.lastDate ? showDay(mark.lastDate) : 'none'}</Line>
            <Line says="Posted by">{finding.postedBy ?? 'nobody yet'}</Line>
            <Line says="Posted on">{finding.postedAt ? showInstant(finding.postedAt) : '–'}</Line>
          </>
        )}
        {!mark && finding.course && <Line says="Course">{finding.course}</Line>}
        {!mark && finding.section && <Line says="Section">{finding.section}</Line>}
        {finding.teacher && <Line says="Teacher">{finding.teacher}</Line>}
      </dl>
      {finding.note && <FindingNote note={finding.note} />}
      <Button look="main" writes={false} onClick={onOpen} className="mt-3.5 w-full justify-between">
        {placeOfFinding(rule, finding).says} <Key>↵</Key>
      </Button>
      {onCompare && (
        <Button writes={false} onClick={onCompare} className="mt-2 w-full justify-between">
          Beside its sister sections <Key>D</Key>
        </Button>
      )}
      {mayMend && !finding.isGone && rule.fix !== null && (
        <Button onClick={onMend} className="mt-2 w-full justify-between">
          {rule.fix}… <Key>M</Key>
        </Button>
      )}
      {mayWaive && !isSettled(finding) && (
        <Button onClick={onWaive} className="mt-2 w-full justify-between">
          Waive… <Key>V</Key>
        </Button>
      )}
      {mayWaive && finding.teacher && !isSettled(finding) && (
        <Button onClick={onSend} className="mt-2 w-full justify-between">
          Tell the teacher… <Key>T</Key>
        </Button>
      )}
      {mayWaive && (
        <Button onClick={onNote} className="mt-2 w-full justify-between">
          Whose, and a comment… <Key>O</Key>
        </Button>
      )}
      {finding.notice && (
        <p className="mt-3 text-[13px] text-quiet">
          {finding.notice.to} was told on {showInstant(finding.notice.at)}
          {finding.notice.isAnswered ? '; the grade was saved since.' : '.'}
        </p>
      )}
      <WaiverNote finding={finding} mayWaive={mayWaive} onEnd={onEndWaiver} />
      <p className="mt-4 flex gap-2 text-[13px] text-quiet">
        <span className="mt-1">
          <SeverityDiamond severity={rule.severity} />
        </span>
        <span>
          <b>{rule.summary}.</b> {rule.why}
        </span>
      </p>
    </section>
  );
}

/** Whose a finding is, and what was said of it last. */
function FindingNote({ note: { assignedTo, comment, by, at } }: { note: NonNullable<FindingReply['note']> }) {
  return (
    <div className="mt-3 rounded-md border border-hairline bg-surface px-3 py-2 text-[13px]">
      {assignedTo && (
        <p>
          <b>{assignedTo.name}</b> sees to it.
        </p>
      )}
      {comment && <p className="whitespace-pre-line">“{comment}”</p>}
      <p className="text-quiet">
        {by}, {showInstant(at)}
      </p>
    </div>
  );
}

function Line({ says, children }: { says: string; children: ReactNode }) {
  return (
    <div className="flex justify-between gap-3 border-t border-hairline px-3 py-[5px] first:border-t-0">
      <dt className="text-quiet">{says}</dt>
      <dd className="text-right font-semibold">{children}</dd>
    </div>
  );
}
