import { markInWords, type ReceiptChangeReply } from '#contract/posting';
import { showDay, showName } from '../ui/format';

/** The grades that one save changes: whose, of which section where there are several, what was, what is, in columns. */
export function ReceiptRows({ changes }: { changes: readonly (ReceiptChangeReply & { readonly section?: string })[] }) {
  return (
    <table className="w-full table-fixed">
      <thead className="sr-only">
        <tr>
          <th>Student</th>
          <th>Was</th>
          <th>Is</th>
          <th>Besides</th>
        </tr>
      </thead>
      <tbody>
        {changes.map(({ student, section, before, after }) => (
          <tr key={`${student}/${section}`} className="border-t border-hairline">
            <td className="w-[220px] py-1">
              {showName(student)}
              {section && <span className="block text-[12px] text-quiet">{section}</span>}
            </td>
            <td className="figures w-[120px] text-quiet">{before ? markInWords(before) : '–'}</td>
            <td className="figures w-[120px] font-bold">{markInWords(after)}</td>
            <td className="truncate text-quiet">
              {[after.lastDate && `last date ${showDay(after.lastDate)}`, after.overrideReason, after.comment]
                .filter(Boolean)
                .join(' · ')}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
