import { Link } from 'react-router';
import { useScope } from '../shell/scope';
import { useSheets, type SheetKey } from './queries';

interface SheetStepsProps {
  readonly sheetKey: SheetKey;
  /** A composite is made of other grades, not of scores. */
  readonly hasBook: boolean;
  /** One of the standards that the section reports, which have a sheet together. */
  readonly isStandard: boolean;
}

/** The section's grade book, and the sheets before and after this one. */
export function SheetSteps({ sheetKey: { sectionId, itemId, periodId }, hasBook, isStandard }: SheetStepsProps) {
  const { path } = useScope();
  const { data: lists } = useSheets(periodId);
  const sheets = lists?.find((list) => list.itemId === itemId)?.sheets ?? [];
  const at = sheets.findIndex((sheet) => sheet.sectionId === sectionId);
  const link = (sheet: (typeof sheets)[number] | undefined, arrow: 'before' | 'after') =>
    sheet && (
      <Link
        to={path(`grade-sheets/${sheet.sectionId}/${itemId}`)}
        className="rounded-md px-2 py-1 font-semibold hover:bg-eucalypt-soft"
      >
        {arrow === 'before' ? `◂ ${sheet.section}` : `${sheet.section} ▸`}
      </Link>
    );
  return (
    <span className="flex items-center justify-end gap-1">
      {isStandard && (
        <Link
          to={path(`standards/${sectionId}`)}
          className="rounded-md px-2 py-1 font-semibold text-eucalypt hover:bg-eucalypt-soft"
        >
          All standards
        </Link>
      )}
      {hasBook && (
        <Link
          to={path(`grade-books/${sectionId}`)}
          className="rounded-md px-2 py-1 font-semibold text-eucalypt hover:bg-eucalypt-soft"
        >
          Grade book
        </Link>
      )}
      {link(sheets[at - 1], 'before')}
      {link(sheets[at + 1], 'after')}
    </span>
  );
}
