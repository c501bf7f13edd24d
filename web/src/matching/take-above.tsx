import { useState } from 'react';
import { sureConfidence } from '#core/matching';
import type { MatchDecisionBody, MatchesReply } from '#contract/matching';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';
import { decisionsAbove } from './join-rows';
import { useDecide } from './queries';
import type { View } from './views';

const lines = [95, 90, 80, 70, 50];

/** Takes all proposals of the view above a line that is chosen here, as one decision. */
export function TakeAbove({ reply, view }: { reply: MatchesReply; view: View }) {
  const decide = useDecide(reply.platform.id);
  const [line, setLine] = useState(sureConfidence);
  const decisions = decisionsOfView(reply, view, line);
  if (decisionsOfView(reply, view, 0).length === 0) return null;
  const take = () => decide.mutate({ decisions, says: `${counted(decisions.length, 'proposal')} accepted.` });
  return (
    <span className="flex items-center gap-2">
      <Button look="main" disabled={decide.isPending || decisions.length === 0} onClick={take}>
        Accept {counted(decisions.length, 'proposal')}
      </Button>
      {view === 'person' ? (
        'with the same name and day of birth'
      ) : (
        <span>
          of{' '}
          <Choice label="Line" value={line} onChange={({ target }) => setLine(Number(target.value))}>
            {lines.map((each) => (
              <option key={each} value={each}>
                {each} %
              </option>
            ))}
          </Choice>{' '}
          and more
        </span>
      )}
    </span>
  );
}

function decisionsOfView({ classes, names, people }: MatchesReply, view: View, line: number): MatchDecisionBody[] {
  if (view === 'class')
    return classes.flatMap(({ id, state, best }) =>
      state === 'proposed' && best && best.confidence >= line ? [joining('class', id, best.sectionId)] : [],
    );
  if (view === 'person')
    return people.flatMap(({ id, state, match }) =>
      state === 'proposed' && match.state === 'proposed' && match.by === 'nameAndBirthDate'
        ? [joining('person', id, match.personId)]
        : [],
    );
  return decisionsAbove(
    line,
    names.filter(({ kind }) => kind === view),
  );
}

function joining(kind: 'class' | 'person', id: number, target: number): MatchDecisionBody {
  return { kind, ids: [id], decision: 'joined', target: String(target) };
}
