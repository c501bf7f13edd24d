import { useState } from 'react';
import { personFields, personHeadings } from '#core/people';
import { listed, usesInWords } from '#contract/messages';
import type { DuplicateReply, MergePreviewReply } from '#contract/people';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { Awaited } from '../../shell/awaited';
import { Button } from '../../ui/button';
import { Drawer } from '../../ui/drawer';
import { Note } from '../../ui/panel';
import { filledWords, likelierKept, nameOf, reasonWords, sayObstacle } from './duplicate-words';
import { useMerge, useMergePreview, useSayDifferent } from './queries';

interface MergeDrawerProps {
  readonly schoolId: number;
  readonly pair: DuplicateReply;
  readonly onClose: () => void;
}

/** Two records side by side, which of them is kept, and what making one of them would do. */
export function MergeDrawer({ schoolId, pair, onClose }: MergeDrawerProps) {
  const { one, other, reasons } = pair;
  const [keptId, setKeptId] = useState(likelierKept(one, other).id);
  const gone = keptId === one.id ? other : one;
  const preview = useMergePreview(schoolId, keptId, gone.id);
  const different = useSayDifferent(schoolId);
  const tellOfChange = useTellOfChange();
  const sayDifferent = () =>
    different.mutate(pair, {
      onSuccess: (reply) => {
        tellOfChange(`${nameOf(one)} and ${nameOf(other)} are two people.`, reply);
        onClose();
      },
    });
  return (
    <Drawer title="One person or two?" onClose={onClose}>
      <div className="space-y-4">
        <p className="first-letter:uppercase">
          {listed(reasons.map((each) => reasonWords[each]))}: these two may be one person.
        </p>
        <table className="w-full text-[13px]">
          <thead>
            <tr>
              <td />
              {[one, other].map((record) => (
                <th key={record.id} scope="col" className="py-1 text-left font-normal">
                  <label className="flex items-center gap-1.5 font-semibold">
                    <input
                      type="radio"
                      name="kept"
                      checked={record.id === keptId}
                      onChange={() => setKeptId(record.id)}
                    />
                    Keep{record.id === keptId ? ' this' : ' this instead'}
                  </label>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {personFields
              .filter((field) => field !== 'kind' && (one.cells[field] || other.cells[field]))
              .map((field) => (
                <tr key={field} className="border-t border-hairline align-top">
                  <th scope="row" className="py-1 pr-2 text-left font-normal text-quiet">
                    {personHeadings[field]}
                  </th>
                  {[one, other].map((record) => (
                    <td
                      key={record.id}
                      className={`py-1 pr-2 break-words ${one.cells[field] === other.cells[field] ? '' : 'font-semibold'}`}
                    >
                      {record.cells[field] || <span className="text-quiet">none</span>}
                    </td>
                  ))}
                </tr>
              ))}
            <tr className="border-t border-hairline">
              <th scope="row" className="py-1 pr-2 text-left font-normal text-quiet">
                Kept by
              </th>
              {[one, other].map((record) => (
                <td key={record.id} className="py-1">
                  {record.isOfRoster ? 'a roster' : 'made here'}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
        <Awaited query={preview} waiting="Working out what it would do">
          {(reply) => (
            <Effect schoolId={schoolId} preview={reply} isOlder={preview.isPlaceholderData} onMerged={onClose} />
          )}
        </Awaited>
        <div className="border-t border-hairline pt-3">
          <Button writes disabled={different.isPending} onClick={sayDifferent}>
            They are two people
          </Button>
          <p className="mt-1 text-[13px] text-quiet">The pair is not listed again.</p>
        </div>
      </div>
    </Drawer>
  );
}

interface EffectProps {
  readonly schoolId: number;
  readonly preview: MergePreviewReply;
  /** It answers what was chosen before. */
  readonly isOlder: boolean;
  readonly onMerged: () => void;
}

function Effect({ schoolId, preview, isOlder, onMerged }: EffectProps) {
  const merge = useMerge(schoolId);
  const tellOfChange = useTellOfChange();
  const { kept, gone, filled, moves, shared, obstacles } = preview;
  if (obstacles.length > 0)
    return (
      <Note tone="blocks" title="These two cannot be merged">
        {obstacles.map(sayObstacle).map((says) => (
          <p key={says}>{says}</p>
        ))}
      </Note>
    );
  const goes =
    Object.keys(moves).length === 0 ? 'Nothing hangs on it' : `It brings along ${usesInWords({ counts: moves })}`;
  return (
    <div className={`space-y-2 ${isOlder ? 'opacity-60' : ''}`}>
      <ul className="list-disc space-y-1 pl-5">
        <li>
          The record {gone.cells.number || nameOf(gone)} goes. {goes}.
        </li>
        {filled.length > 0 && <li>The one kept takes its {listed(filled.map((each) => filledWords[each]))}.</li>}
        {shared.length > 0 && <li>Both have a seat in {listed(shared)}; the seat without any work goes.</li>}
        {gone.isOfRoster && <li>What a roster brings for it from now on counts for the one kept.</li>}
      </ul>
      <Button
        look="main"
        disabled={isOlder || merge.isPending}
        onClick={() =>
          merge.mutate(preview, {
            onSuccess: (after) => {
              tellOfChange(`${nameOf(gone)} and ${nameOf(kept)} are one record now.`, after);
              onMerged();
            },
          })
        }
      >
        Merge
      </Button>
    </div>
  );
}
