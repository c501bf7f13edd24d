import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { checkCodes, newCode } from '#core/codes';
import { bodyOfCode, codeFaultSentence, codeOfBody, type CodeBody, type CodesReply } from '#contract/codes';
import { agreeing, counted } from '#contract/messages';
import { Changeable } from '../ui/changeable';
import { PageFace } from '../shell/awaited-page';
import { ProblemError } from '../shell/api';
import { HistoryButton } from '../changes/history-button';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { showProblem } from '../shell/show-problem';
import { useScope } from '../shell/scope';
import { Button, Key } from '../ui/button';
import { showCount } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Note, Panel } from '../ui/panel';
import { searchWith } from '../ui/address/search-with';
import { useKeys } from '../ui/use-keys';
import { CodeEffects } from './code-effects';
import { codeSentence } from './code-sentence';
import { useCodes, useSaveCodes, useScales } from '../scales/queries';

/** The district's codes with their effects as data. */
export function CodesDesk({ viewSwitch }: { viewSwitch: React.ReactNode }) {
  const codes = useCodes();
  const { data: reply } = codes;
  if (!reply) return <PageFace queries={[codes]} />;
  return <CodeList reply={reply} viewSwitch={viewSwitch} />;
}

function CodeList({ reply, viewSwitch }: { reply: CodesReply; viewSwitch: React.ReactNode }) {
  const { periodId } = useScope();
  const { data: scales } = useScales(periodId);
  const saved = reply.codes.map(({ grades: _grades, ...code }) => code);
  const [draft, setDraft] = useState<{ codes: CodeBody[]; revision: string } | undefined>();
  const [chosen, setChosen] = useChosenCode(saved);
  const save = useSaveCodes();
  const tellOfChange = useTellOfChange();
  const codes = draft?.codes ?? saved;
  const labels = scales?.scales.flatMap(({ bands }) => bands.map(({ label }) => label)) ?? [];
  const faults = checkCodes(codes.map(readable), labels);
  const isStale = draft !== undefined && draft.revision !== reply.revision;
  const change = (next: CodeBody[]) => setDraft({ codes: next, revision: draft?.revision ?? reply.revision });
  const store = (next: CodeBody[], revision: string) =>
    save.mutate(
      { revision, codes: next },
      {
        onSuccess: (after) => {
          setDraft(undefined);
          tellOfChange('The codes are saved.', after);
        },
        onError: showProblem,
      },
    );
  const canSave = draft !== undefined && faults.length === 0 && !isStale && !save.isPending;
  useKeys([
    {
      key: 'Ctrl+s',
      says: 'save the codes',
      inFields: true,
      act: () => canSave && store(codes, draft.revision),
    },
  ]);
  const at = Math.min(chosen, codes.length - 1);
  const code = codes[at];
  const posted = reply.codes.reduce((sum, { grades }) => sum + grades, 0);
  const problem = save.error instanceof ProblemError ? save.error : undefined;
  return (
    <Page
      headline={
        <>
          <Strong>{counted(codes.length, 'code')}</Strong> may replace a label;{' '}
          <Strong tone="informs">{counted(posted, 'grade')}</Strong> {agreeing(posted, 'is')} posted with one.
        </>
      }
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={() => canSave && store(codes, draft.revision)}>
            Save the codes <Key>Ctrl S</Key>
          </Button>
          <Button
            writes
            onClick={() => {
              change([...codes, bodyOfCode(newCode('', ''))]);
              setChosen(codes.length);
            }}
          >
            <Plus size={14} aria-hidden /> New code
          </Button>
          <Button writes disabled={!draft} onClick={() => setDraft(undefined)}>
            Discard
          </Button>
          <HistoryButton thing="codes district" called="the codes" />
        </>
      }
      aside={viewSwitch}
    >
      {isStale && (
        <Note tone="blocks" title="Someone else saved the codes">
          <Button onClick={() => setDraft({ codes, revision: reply.revision })}>Go on from what is saved</Button>
        </Note>
      )}
      <div className="grid items-start gap-3.5 min-[1100px]:grid-cols-[minmax(0,1fr)_400px]">
        <Panel label="Codes">
          <ul>
            {codes.map((each, index) => {
              const own = faults.filter((fault) => fault.index === index);
              const says = own.map(codeFaultSentence);
              const server = problem?.problem.errors.filter(({ field }) => field.startsWith(`codes.${index}.`)) ?? [];
              const grades = reply.codes.find(({ code: name }) => name === each.code)?.grades ?? 0;
              return (
                <li key={index}>
                  <button
                    type="button"
                    aria-pressed={index === at}
                    onClick={() => setChosen(index)}
                    className={`flex w-full items-baseline gap-3 border-t border-hairline px-4 py-2 text-left aria-pressed:bg-eucalypt-soft hover:bg-raised ${JSON.stringify(each) === JSON.stringify(saved[index]) ? '' : 'shadow-[inset_3px_0_0_var(--wattle-fill)]'}`}
                  >
                    <b className={`figures w-12 shrink-0 ${each.isOff ? 'text-quiet line-through' : ''}`}>
                      {each.code || '…'}
                    </b>
                    <span className="min-w-0 flex-1">
                      <b className="font-semibold">{each.meaning || 'a new code'}</b>
                      <span className="block text-[13px] leading-snug text-quiet">{codeSentence(each)}</span>
                      {[...says, ...server.map(({ detail }) => detail)].map((fault) => (
                        <span key={fault} role="alert" className="block text-[13px] text-waratah">
                          {fault}
                        </span>
                      ))}
                    </span>
                    <span className="figures shrink-0 text-[13px] text-quiet" title="grades posted with it">
                      {grades > 0 && showCount(grades)}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
        </Panel>
        {code && (
          <Changeable key={at}>
            <CodeEffects
              key={at}
              code={code}
              labels={[...new Set(labels)]}
              others={codes.filter((_each, index) => index !== at).map((each) => each.code)}
              onChange={(changed) => change(codes.with(at, { ...code, ...changed }))}
              onMove={(by) => {
                if (!codes[at + by]) return;
                change(codes.toSpliced(at, 1).toSpliced(at + by, 0, code));
                setChosen(at + by);
              }}
              onRemove={() => change(codes.toSpliced(at, 1))}
            />
          </Changeable>
        )}
      </div>
    </Page>
  );
}

/** The position of the chosen code. The address keeps its saved name, so that a reload or a link shows the same one. */
function useChosenCode(saved: readonly CodeBody[]) {
  const [search, setSearch] = useSearchParams();
  const inAddress = saved.findIndex(({ code }) => code === search.get('code'));
  const [chosen, setChosen] = useState(Math.max(0, inAddress));
  const choose = (index: number) => {
    setChosen(index);
    const name = saved[index]?.code;
    if (name) setSearch((before) => searchWith(before, { code: name }), { replace: true });
  };
  return [chosen, choose] as const;
}

/** While a percentage is being typed it may not be one yet; then the check is the server's. */
function readable(code: CodeBody) {
  return codeOfBody(/^\d{1,3}(\.\d{1,2})?$/.test(code.countsAs ?? '0') ? code : { ...code, countsAs: '0' });
}
