import { useQuery } from '@tanstack/react-query';
import type { SheetFindingCountReply, SheetFindingReply, SheetFindingsReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { api } from '../shell/api';
import { showInstant } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';

interface SheetFindingsProps {
  readonly periodId: number;
  readonly sectionId: number;
  /** What is posted on the sheet, by its items. */
  readonly items: ReadonlyMap<number, string>;
  /** The students of the sheet, by their enrollments. */
  readonly nameOf: ReadonlyMap<number, string>;
  /** Goes to a student of the sheet; the item is null where it is about no one of them. */
  readonly onStudent: (enrollmentId: number, itemId: number | null) => void;
}

/** What the last audit found on a sheet, for whoever posts there; nothing where it found nothing. */
export function SheetFindings({ periodId, sectionId, items, nameOf, onStudent }: SheetFindingsProps) {
  const { data } = useQuery({
    queryKey: ['audit', 'sheet', periodId, sectionId],
    queryFn: () => api.get<SheetFindingsReply>(`/sheet-findings?period=${periodId}&section=${sectionId}`),
  });
  const findings = data?.findings.filter(({ itemId }) => itemId === null || items.has(itemId)) ?? [];
  if (!data?.at || findings.length === 0) return null;
  const open = findings.filter(({ since }) => since !== 'gone');
  const gone = findings.length - open.length;
  const worst = open.some(({ severity }) => severity === 'blocks') ? 'border-l-waratah' : 'border-l-wattle-fill';
  const edge = open.length === 0 ? 'border-l-eucalypt' : worst;
  return (
    <details
      // Whoever was told of something reads it first; the rest says itself in the notes.
      open={findings.some(({ toldAt, since }) => toldAt !== null && since === null)}
      className={`max-h-[30vh] shrink-0 overflow-auto rounded-md border border-l-[3px] border-hairline bg-surface px-4 py-1.5 text-[13px] ${edge}`}
    >
      <summary className="min-h-[24px] cursor-pointer leading-6">
        The audit of {showInstant(data.at)} found <b>{counted(findings.length, 'thing')}</b> here
        {gone > 0 && `; ${gone === findings.length ? 'all' : gone} set right since`}
      </summary>
      <ul className="mt-1 mb-1 space-y-1">
        {findings.map((finding) => (
          <FindingLine key={finding.key} finding={finding} items={items} nameOf={nameOf} onStudent={onStudent} />
        ))}
      </ul>
    </details>
  );
}

interface FindingLineProps extends Pick<SheetFindingsProps, 'items' | 'nameOf' | 'onStudent'> {
  readonly finding: SheetFindingReply;
}

function FindingLine({ finding, items, nameOf, onStudent }: FindingLineProps) {
  const { severity, enrollmentId, itemId, sentence, toldAt, since } = finding;
  const student = enrollmentId === null ? null : (nameOf.get(enrollmentId) ?? 'somebody who is no longer here');
  // Where several are on the sheet, whoever reads it asks which.
  const item = items.size > 1 && itemId !== null ? items.get(itemId)! : null;
  const about = [student, item].filter((each) => each !== null).join(', ');
  const said = about === '' ? sentence : `: ${sentence}`;
  return (
    <li className={`flex gap-2 ${since === 'gone' ? 'text-quiet' : ''}`}>
      <span className="mt-px">
        <SeverityDiamond severity={severity} />
      </span>
      <span>
        {enrollmentId === null ? (
          <>
            <b>{about}</b>
            {said}
          </>
        ) : (
          <button type="button" onClick={() => onStudent(enrollmentId, itemId)} className="text-left hover:underline">
            <b>{about}</b>
            {said}
          </button>
        )}
        {(since || toldAt) && (
          <span className="text-quiet">
            {' '}
            {since ? sinceInWords[since] : `You were told on ${showInstant(toldAt!)}.`}
          </span>
        )}
      </span>
    </li>
  );
}

const sinceInWords: Readonly<Record<NonNullable<SheetFindingReply['since']>, string>> = {
  gone: 'Set right since.',
  still: 'Saved since, and still so.',
  saved: 'Saved since; the next audit looks again.',
};

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
