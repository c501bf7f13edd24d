import type { FileImportReply } from '#contract/files';
import { proposalWords } from './words';

/** Why the columns were proposed. */
export function ProposalReasons({ file: { proposals, items } }: { file: FileImportReply }) {
  const { id, sectionColumn, section, grades } = proposals;
  const names = new Map(items.map((item) => [item.id, item.name]));
  return (
    <p className="text-[12px] text-quiet">
      {id ? `Id column: ${proposalWords(id)} (${id.confidence} %). ` : 'No column contains ids that we know. '}
      {sectionColumn && `Section column: ${proposalWords(sectionColumn)} (${sectionColumn.confidence} %). `}
      {section && `Section: ${section.known} of the students are in it (${section.confidence} %). `}
      {grades.length === 0
        ? 'No column contains percentages.'
        : grades
            .map(
              ({ itemId, proposal }) =>
                `${names.get(itemId) ?? 'Grade'}: ${proposalWords(proposal)} (${proposal.confidence} %).`,
            )
            .join(' ')}
    </p>
  );
}
