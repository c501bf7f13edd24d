import { formatDecimal, parseDecimal } from '#core/numbers';
import type { AuditReply, FindingReply } from '#contract/audit';

const effects = { blocks: 'blocks sealing', warns: 'warns', informs: 'for information' } as const;

/** The findings of the last audit as rows of a file, each with what it is about and whether somebody let it stand. */
export function findingRows({ rules, run }: AuditReply): readonly (readonly string[])[] {
  const ruleOf = new Map(rules.map((rule) => [rule.id, rule]));
  const order = rules.map(({ id }) => id);
  const rows = (run?.findings ?? [])
    .toSorted((a, b) => order.indexOf(a.ruleId) - order.indexOf(b.ruleId))
    .map((finding) => {
      const { severity, summary } = ruleOf.get(finding.ruleId)!;
      return [
        effects[severity],
        summary,
        finding.sentence,
        ...placeCells(finding),
        ...waiverCells(finding),
        ...noteCells(finding),
      ];
    });
  return [headings, ...rows];
}

const headings = [
  'Severity',
  'Rule',
  'Finding',
  'Student',
  'Section',
  'Course',
  'Item',
  'Teacher',
  'Percentage',
  'Label or code',
  'New',
  'Waived by',
  'Reason',
  'Until',
  'Assigned to',
  'Comment',
];

function placeCells({ student, section, course, itemName, teacher, mark, isNew }: FindingReply): string[] {
  const percent = parseDecimal(mark?.percent ?? '');
  return [
    ...[student, section, course, itemName, teacher].map((each) => each ?? ''),
    percent ? formatDecimal(percent) : '',
    mark?.code ?? mark?.label ?? '',
    isNew ? 'new' : '',
  ];
}

function waiverCells({ waiver }: FindingReply): string[] {
  return waiver?.state === 'holds' ? [waiver.by, waiver.reason, waiver.until ?? ''] : ['', '', ''];
}

const noteCells = ({ note }: FindingReply): string[] => [note?.assignedTo?.name ?? '', note?.comment ?? ''];
