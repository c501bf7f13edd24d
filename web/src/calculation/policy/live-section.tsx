import type { BookReply, BookSummaryReply, PolicyBody } from '#contract/calculation';
import { formatDecimal } from '#core/numbers';
import { counted } from '#contract/messages';
import { openDrawer } from '../../shell/drawer-store';
import { useScope } from '../../shell/scope';
import { Choice } from '../../ui/field';
import { showLabel, showPercent } from '../../ui/format';
import { Panel } from '../../ui/panel';
import type { BookRow } from '../book/book-view';
import { GradeBookSum } from '../book/book-workings';
import { Link } from 'react-router';

interface LiveSectionProps {
  readonly book: BookReply;
  /** The sections to choose from: those the policy holds for that have scores. */
  readonly choices: readonly BookSummaryReply[];
  readonly saved: readonly BookRow[];
  /** Under the draft; the same as saved while there is none. */
  readonly drafted: readonly BookRow[] | undefined;
  readonly draftBody: PolicyBody;
  readonly isDraft: boolean;
  readonly onChoose: (sectionId: number) => void;
}

/** One real section: what every student comes to now, and would with the draft. */
export function LiveSection({ book, choices, saved, drafted, draftBody, isDraft, onChoose }: LiveSectionProps) {
  const { path } = useScope();
  const changed = drafted?.filter((row, at) => !isSame(row, saved[at]!)).length ?? 0;
  const labels = drafted?.filter(({ label }, at) => label !== saved[at]!.label).length ?? 0;
  const explain = (row: BookRow) =>
    openDrawer(
      isDraft ? 'Workings, as drafted' : 'Workings',
      <div className="space-y-4">
        <h3 className="text-[17px] leading-snug font-bold">{row.student.student}</h3>
        <GradeBookSum book={{ ...book, policy: draftBody }} row={row} />
      </div>,
    );
  return (
    <Panel label="A real section" className="flex max-h-[calc(100dvh-250px)] min-h-[300px] flex-col self-start">
      <header className="border-b border-hairline px-4 py-2.5">
        <p>
          <Choice
            label="Section beside the policy"
            value={book.sectionId}
            onChange={(event) => onChoose(Number(event.target.value))}
          >
            {choices.map(({ sectionId, section }) => (
              <option key={sectionId} value={sectionId}>
                {section}
              </option>
            ))}
          </Choice>
        </p>
        <p className="text-[12px] text-quiet">
          {!drafted
            ? 'The numbers return when every number of the policy can be read.'
            : isDraft
              ? changed === 0
                ? 'The draft changes no grade here.'
                : `The draft changes ${counted(changed, 'percent')} and ${counted(labels, 'label')} here.`
              : 'Change the policy and these numbers change with it.'}{' '}
          <Link to={path(`grade-books/${book.sectionId}`)} className="font-semibold text-eucalypt hover:underline">
            Open the grade book
          </Link>
        </p>
      </header>
      <div className="min-h-0 flex-1 overflow-auto">
        <table className="w-full text-[13px]">
          <thead>
            <tr className="[&_th]:sticky [&_th]:top-0 [&_th]:h-7 [&_th]:border-b [&_th]:border-hairline [&_th]:bg-surface [&_th]:px-3 [&_th]:font-semibold [&_th]:text-quiet">
              <th className="text-left">Student</th>
              <th className="text-right">now</th>
              {isDraft && <th className="text-right">drafted</th>}
            </tr>
          </thead>
          <tbody>
            {saved.map((row, at) => {
              const next = drafted?.[at];
              const moves = next !== undefined && !isSame(next, row);
              return (
                <tr
                  key={row.student.enrollmentId}
                  onClick={() => explain(next ?? row)}
                  className="cursor-pointer border-b border-hairline hover:bg-raised [&_td]:h-[30px] [&_td]:px-3"
                >
                  <td className="max-w-0 w-full truncate">
                    <button type="button" className="truncate text-left">
                      {row.student.student}
                    </button>
                  </td>
                  <td className={`figures text-right whitespace-nowrap ${moves ? 'text-quiet' : ''}`}>{shown(row)}</td>
                  {isDraft && (
                    <td
                      className={`figures text-right whitespace-nowrap ${moves ? 'bg-wattle-soft font-bold text-wattle' : 'text-quiet'}`}
                    >
                      {next ? (moves ? shown(next) : 'same') : '–'}
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </Panel>
  );
}

function isSame(a: BookRow, b: BookRow): boolean {
  return shown(a) === shown(b);
}

/** "86.4 B", "blocked" or a dash. */
function shown({ rounded, label, workings }: BookRow): string {
  if (workings.blockedBy.length > 0) return 'blocked';
  if (!rounded) return '–';
  return `${showPercent(formatDecimal(rounded))} ${label ? showLabel(label).padEnd(2, '\u00a0') : '–\u00a0'}`;
}
