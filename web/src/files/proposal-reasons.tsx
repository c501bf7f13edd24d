import type { FileImportReply } from '#contract/files';
import { doubtWords, proposalWords } from './words';

/** Why columns are proposed, and why others are not. */
export function ProposalReasons({ file: { proposals, items, header } }: { file: FileImportReply }) {
  const { id, sectionColumn, section, grades, doubts } = proposals;
  const names = new Map(items.map((item) => [item.id, item.name]));
  const chosen = grades.map(
    ({ itemId, proposal }) => `${names.get(itemId) ?? 'Grade'}: ${proposalWords(proposal)} (${proposal.confidence} %).`,
  );
  return (
    <div className="text-[12px] text-quiet">
      <p>
        {id ? `Id column: ${proposalWords(id)} (${id.confidence} %). ` : 'No column contains ids that we know. '}
        {sectionColumn && `Section column: ${proposalWords(sectionColumn)} (${sectionColumn.confidence} %). `}
        {section && `Section: ${section.known} of the students are in it (${section.confidence} %). `}
        {chosen.length + doubts.length > 0 ? chosen.join(' ') : 'No column contains percentages.'}
      </p>
      {doubts.map(({ column, code }) => (
        <p key={column}>
          “{header[column] || `column ${column + 1}`}” was not chosen: {doubtWords[code]}.
        </p>
      ))}
    </div>
  );
}
