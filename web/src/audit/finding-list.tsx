import { useMemo } from 'react';
import type { AuditRuleReply, FindingReply } from '#contract/audit';
import type { MarkBody } from '#contract/posting';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showLabel, showPercent } from '../ui/format';
import { Empty } from '../ui/panel';
import { SeverityDiamond } from '../ui/state-marks';

interface FindingListProps {
  readonly rules: readonly AuditRuleReply[];
  readonly findings: readonly FindingReply[];
  readonly chosen: string | null;
  readonly onChoose: (finding: FindingReply) => void;
  readonly onOpen: (finding: FindingReply) => void;
}

/** What became of a finding, or that it is new; null where there is nothing to tell. */
function stateOf({ isNew, isGone, waiver }: FindingReply): 'gone' | 'waived' | 'new' | null {
  if (isGone) return 'gone';
  if (waiver?.state === 'holds') return 'waived';
  return isNew ? 'new' : null;
}

const stateColumn: GridColumn<FindingReply> = {
  id: 'new',
  header: <span className="sr-only">New</span>,
  width: '56px',
  align: 'right',
  cell: (finding) => {
    const state = stateOf(finding);
    const look = state === 'new' ? 'rounded bg-estuary-soft px-1.5 text-estuary' : 'text-quiet';
    return state && <span className={`text-[12px] ${look}`}>{state}</span>;
  },
};

/** The findings, one line each, with the grade as it is posted now. */
export function FindingList({ rules, findings, chosen, onChoose, onOpen }: FindingListProps) {
  // Where there is nothing to tell, names have its room.
  const hasStates = findings.some((finding) => stateOf(finding) !== null);
  const columns = useMemo((): GridColumn<FindingReply>[] => {
    const rule = (id: string) => rules.find((each) => each.id === id)!;
    return [
      {
        id: 'severity',
        header: <span className="sr-only">Severity</span>,
        width: '32px',
        cell: ({ ruleId }) => <SeverityDiamond severity={rule(ruleId).severity} />,
      },
      {
        id: 'subject',
        header: 'About',
        width: '126px',
        sortBy: ({ subject }) => subject,
        cell: ({ subject }) => (
          <b className="font-semibold" title={subject}>
            {subject}
          </b>
        ),
      },
      {
        id: 'section',
        header: 'Where',
        sortBy: whereOf,
        cell: (finding) => <span title={whereOf(finding)}>{whereOf(finding)}</span>,
      },
      {
        id: 'posted',
        header: 'Posted',
        width: '88px',
        align: 'right',
        sortBy: ({ mark }) => Number(mark?.percent ?? -1),
        cell: ({ mark }) => mark && <b className="figures">{postedInWords(mark)}</b>,
      },
      ...(hasStates ? [stateColumn] : []),
    ];
  }, [rules, hasStates]);
  return (
    <div
      className="flex min-h-0 flex-col"
      onDoubleClick={() => {
        const finding = findings.find(({ key }) => key === chosen);
        if (finding) onOpen(finding);
      }}
    >
      <DataGrid
        label="Findings"
        minWidth={400}
        columns={columns}
        rows={findings}
        rowKey={({ key }) => key}
        chosenKey={chosen}
        onReach={onChoose}
        empty={<Empty title="Nothing found">Every rule looked and has nothing to say here.</Empty>}
      />
    </div>
  );
}

/** Beside what a finding is about: a student's section, a section's item, or nothing more. */
function whereOf({ student, section, itemName }: FindingReply): string {
  return (student ? section : section && itemName) ?? '';
}

/** @example postedInWords({ percent: '86.40', label: 'B', code: null }) // '86.4 B' */
function postedInWords({ percent, label, code }: Pick<MarkBody, 'percent' | 'label' | 'code'>): string {
  const parts = [percent && showPercent(percent), code ?? (label && showLabel(label))].filter(Boolean);
  return parts.length === 0 ? '–' : parts.join(' ');
}
