import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { roleNames } from '#core/access';
import type { PersonReply } from '#contract/people';
import { useScope } from '../shell/scope';
import { Dialog } from '../ui/dialog';
import { CheckField } from '../ui/field';
import { changeOwnView, useOwnView } from '../ui/own-view';
import { useKnownKeys } from '../ui/use-keys';
import { roleStepsOf } from './role-steps';
import { wordsAt } from './words-of-places';

/** What answers in every list and in every grid that is typed into. */
const everywhere: readonly (readonly [key: string, says: string])[] = [
  ['← ↑ → ↓', 'move in a list or a grid; with Shift they select cells'],
  ['Enter', 'open the row, edit the cell'],
  ['Space', 'select'],
  ['letters', 'find a row of a list; a capital where the letter is a key above'],
  ['Alt ← →', 'on the head of a column: its width'],
  ['Ctrl+d', 'fill the selected cells from the first row'],
  ['Esc', 'close what is innermost'],
];

interface HelpDialogProps {
  readonly person: PersonReply;
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
}

/** The keys that answer on this screen, its words, and what somebody new in a role does first. */
export function HelpDialog({ person, isOpen, onOpenChange }: HelpDialogProps) {
  const { pathname } = useLocation();
  const words = wordsAt(pathname);
  return (
    <Dialog isWide isOpen={isOpen} onOpenChange={onOpenChange} title="Help for this screen" savesAtOnce>
      <div className="grid grid-cols-2 gap-x-8 gap-y-5 max-[860px]:grid-cols-1">
        <Keys />
        <div className="space-y-5">
          {words.length > 0 && (
            <Part title="Words of this screen">
              <dl className="space-y-1.5">
                {words.map(([word, means]) => (
                  <div key={word}>
                    <dt className="inline font-semibold">{word}: </dt>
                    <dd className="inline">{means}</dd>
                  </div>
                ))}
              </dl>
            </Part>
          )}
          <Steps person={person} onGo={() => onOpenChange(false)} />
        </div>
      </div>
    </Dialog>
  );
}

function Keys() {
  const groups = useKnownKeys((state) => state.groups);
  const letterKeys = useOwnView((view) => view.letterKeys);
  const keys = [...groups.values()].flat().map(({ key, says }) => [key, says] as const);
  return (
    <Part title="Keys of this screen">
      <dl className="grid grid-cols-[90px_1fr] gap-y-2">
        {[...keys, ...everywhere.filter(([key]) => !keys.some(([known]) => known === key))].map(([key, says]) => (
          <div key={key} className="contents">
            <dt>
              <kbd
                className={`figures rounded border border-hairline bg-raised px-1.5 py-0.5 text-[12px] ${key.length === 1 && !letterKeys ? 'line-through' : ''}`}
              >
                {key}
              </kbd>
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
      <CheckField
        className="mt-3"
        label="Keys of a single letter or sign answer"
        checked={letterKeys}
        onChange={({ target }) => changeOwnView({ letterKeys: target.checked })}
      />
    </Part>
  );
}

function Steps({ person, onGo }: { person: PersonReply; onGo: () => void }) {
  const { schoolId, path } = useScope();
  const own = roleStepsOf(person, schoolId);
  const isHidden = useOwnView((view) => view.hidesFirstSteps);
  if (!own) return null;
  return (
    <Part title={`First steps of a ${roleNames[own.role]}`}>
      <ol className="list-decimal space-y-1.5 pl-5">
        {own.steps.map(({ does, how, path: to }) => (
          <li key={does}>
            {to === undefined ? (
              <b className="font-semibold">{does}</b>
            ) : (
              <Link to={path(to)} onClick={onGo} className="font-semibold text-estuary hover:underline">
                {does}
              </Link>
            )}
            . {how}
          </li>
        ))}
      </ol>
      <CheckField
        className="mt-3"
        label="Show them above every page"
        checked={!isHidden}
        onChange={({ target }) => changeOwnView({ hidesFirstSteps: !target.checked })}
      />
    </Part>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h3 className="mb-2 text-[13px] font-bold text-quiet">{title}</h3>
      {children}
    </section>
  );
}
