import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { rowResults, type LedgerOutcome } from '#core/runs';
import { reasonWords, type ReasonCountReply, type RunReply, type RunRowsQuery } from '#contract/runs';
import { counted } from '#contract/messages';
import { useScope } from '../shell/scope';
import { showCount } from '../ui/format';
import { Panel } from '../ui/panel';
import { mends, outcomeNames, resultNames } from './run-words';

interface ReasonListProps {
  readonly run: RunReply;
  readonly query: RunRowsQuery;
  readonly onShow: (query: RunRowsQuery) => void;
}

/** The ledger in sums: what is written, and every reason why something is not. Choosing one shows its lines. */
export function ReasonList({ run, query, onShow }: ReasonListProps) {
  const { counts, stage } = run;
  const of = (effect: ReasonCountReply['effect']) => counts.reasons.filter((reason) => reason.effect === effect);
  const outcomes: LedgerOutcome[] = ['create', 'change'];
  return (
    <Panel label="Sums" className="w-[280px] shrink-0 overflow-auto py-2 text-[13px]">
      <Group name={stage === 'plan' ? 'To be written' : 'Planned'}>
        {outcomes.map((outcome) => (
          <Sum
            key={outcome}
            count={counts.outcomes[outcome]}
            isOn={query.outcome === outcome}
            onClick={() => onShow({ outcome })}
          >
            {outcomeNames[outcome]}
          </Sum>
        ))}
        {counts.leftOut > 0 && stage === 'plan' && (
          <p className="px-4 py-1 text-wattle">{showCount(counts.leftOut)} of them not picked</p>
        )}
        {rowResults
          .filter((result) => counts.results[result] > 0)
          .map((result) => (
            <Sum
              key={result}
              count={counts.results[result]}
              isOn={query.result === result}
              onClick={() => onShow({ result })}
            >
              {resultNames[result]}
            </Sum>
          ))}
      </Group>
      <Reasons name="Refused" ink="text-waratah" reasons={of('refuse')} query={query} onShow={onShow} />
      <Reasons name="Skipped" ink="text-wattle" reasons={of('skip')} query={query} onShow={onShow} />
      <Reasons name="To be known" ink="text-quiet" reasons={of('note')} query={query} onShow={onShow} />
      <Group name="Nothing to do">
        <p className="flex justify-between px-4 py-1 text-quiet">
          the same <span className="figures">{showCount(counts.outcomes.same)}</span>
        </p>
        <p className="flex justify-between px-4 py-1 text-quiet">
          not scored there <span className="figures">{showCount(counts.blank)}</span>
        </p>
      </Group>
    </Panel>
  );
}

interface ReasonsProps extends Omit<ReasonListProps, 'run'> {
  readonly name: string;
  readonly ink: string;
  readonly reasons: readonly ReasonCountReply[];
}

function Reasons({ name, ink, reasons, query, onShow }: ReasonsProps) {
  const { path } = useScope();
  if (reasons.length === 0) return null;
  return (
    <Group name={name} ink={ink}>
      {reasons.map(({ code, lines, heldBack, effect }) => {
        const mend = mends[code];
        return (
          <div key={code}>
            <Sum count={lines} isOn={query.reason === code} onClick={() => onShow({ reason: code })}>
              {reasonWords[code].brief}
            </Sum>
            {(heldBack > 0 || (mend && effect !== 'skip')) && (
              <p className="-mt-0.5 px-4 pb-1 text-[12px] text-quiet">
                {heldBack > 0 && <>with {counted(heldBack, 'score')} </>}
                {mend && effect !== 'skip' && (
                  <Link className="font-semibold text-estuary underline" to={path(mend.place)}>
                    {mend.says}
                  </Link>
                )}
              </p>
            )}
          </div>
        );
      })}
    </Group>
  );
}

function Group({ name, ink = '', children }: { name: string; ink?: string; children: ReactNode }) {
  return (
    <section className="mb-2">
      <h2 className={`px-4 pt-1 pb-0.5 font-semibold ${ink}`}>{name}</h2>
      {children}
    </section>
  );
}

function Sum({
  count,
  isOn,
  onClick,
  children,
}: {
  count: number;
  isOn: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      disabled={count === 0}
      onClick={onClick}
      className="flex w-full items-baseline justify-between gap-3 px-4 py-1 text-left hover:bg-eucalypt-soft disabled:text-quiet aria-pressed:bg-eucalypt-soft aria-pressed:font-semibold"
    >
      <span>{children}</span>
      <span className="figures">{showCount(count)}</span>
    </button>
  );
}
