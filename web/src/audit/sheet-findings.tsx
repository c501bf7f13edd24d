import { useQuery } from '@tanstack/react-query';
import type { SheetFindingCountReply, SheetFindingsReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { api } from '../shell/api';
import { showInstant } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';
import type { SheetOfPeriod } from './queries';

interface SheetFindingsProps {
  readonly sheet: SheetOfPeriod;
  /** The students of the sheet, by their enrollments. */
  readonly nameOf: ReadonlyMap<number, string>;
  /** Goes to a student of the sheet. */
  readonly onStudent: (enrollmentId: number) => void;
}

/** What the last audit found on a sheet, for whoever posts there; nothing where it found nothing. */
export function SheetFindings({ sheet, nameOf, onStudent }: SheetFindingsProps) {
  const { periodId, sectionId, itemId } = sheet;
  const { data } = useQuery({
    queryKey: ['audit', 'sheet', periodId, sectionId, itemId],
    queryFn: () =>
      api.get<SheetFindingsReply>(`/sheet-findings?period=${periodId}&section=${sectionId}&item=${itemId}`),
  });
  if (!data?.at || data.findings.length === 0) return null;
  const { findings } = data;
  const edge = findings.some(({ severity }) => severity === 'blocks') ? 'border-l-waratah' : 'border-l-wattle-fill';
  return (
    <details
      // Whoever was told of something reads it first; the rest says itself in the notes.
      open={findings.some(({ toldAt, isSavedSince }) => toldAt !== null && !isSavedSince)}
      className={`max-h-[30vh] shrink-0 overflow-auto rounded-md border border-l-[3px] border-hairline bg-surface px-4 py-1.5 text-[13px] ${edge}`}
    >
      <summary className="min-h-[24px] cursor-pointer leading-6">
        The audit of {showInstant(data.at)} found <b>{counted(findings.length, 'thing')}</b> here
      </summary>
      <ul className="mt-1 mb-1 space-y-1">
        {findings.map((finding) => (
          <FindingLine key={finding.key} finding={finding} nameOf={nameOf} onStudent={onStudent} />
        ))}
      </ul>
    </details>
  );
}

interface FindingLineProps extends Pick<SheetFindingsProps, 'nameOf' | 'onStudent'> {
  readonly finding: SheetFindingsReply['findings'][number];
}

function FindingLine({ finding, nameOf, onStudent }: FindingLineProps) {
  const { severity, enrollmentId, sentence, toldAt, isSavedSince } = finding;
  return (
    <li className={`flex gap-2 ${isSavedSince ? 'text-quiet' : ''}`}>
      <span className="mt-px">
        <SeverityDiamond severity={severity} />
      </span>
      <span>
        {enrollmentId === null ? (
          sentence
        ) : (
          <button type="button" onClick={() => onStudent(enrollmentId)} className="text-left hover:underline">
            <b>{nameOf.get(enrollmentId) ?? 'somebody who is no longer here'}</b>: {sentence}
          </button>
        )}
        {(isSavedSince || toldAt) && (
          <span className="text-quiet">
            {isSavedSince ? ' Saved since; the next audit looks again.' : ` You were told on ${showInstant(toldAt!)}.`}
          </span>
        )}
      </span>
    </li>
  );
}

/** How many findings each sheet of an item has, by its section. */
export function useSheetFindingCounts(periodId: number) {
  return useQuery({
    queryKey: ['audit', 'sheets', periodId],
    queryFn: () => api.get<SheetFindingCountReply[]>(`/sheet-findings/counts?period=${periodId}`),
  });
}

/** The findings of a sheet: those about its item, and those about its section whatever it reports. */
export function countOnSheet(counts: readonly SheetFindingCountReply[], section: number, item: number): number {
  return counts
    .filter(({ sectionId, itemId }) => sectionId === section && (itemId === null || itemId === item))
    .reduce((sum, { findings }) => sum + findings, 0);
}
