import { useState } from 'react';
import { toast } from 'sonner';
import type { PeriodReply } from '#contract/calendar';
import type { BandBody, ScaleReply } from '#contract/scales';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import { moveCutOff } from '#core/scales';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { useScope } from '../shell/scope';
import { Button, Key } from '../ui/button';
import { plural, showCount } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { BandTable } from './band-table';
import { changeDraft, discardDraft, rebaseDraft, undoDraft } from './draft-store';
import { EdgesTable } from './edges-table';
import { useSaveScale } from './queries';
import { Ruler } from './ruler';
import { TryValue } from './try-value';
import { useScaleView, type ScaleView } from './use-scale-view';

/** One scale to look at, to try and to change. A change is a draft until it is saved as the next version. */
export function ScaleDesk({ scale, period }: { scale: ScaleReply; period: PeriodReply }) {
  const view = useScaleView(scale);
  const save = useSaveScale(scale.id);
  const [chosen, setChosen] = useState<number | null>(null);
  const problem = save.error instanceof ProblemError ? save.error : undefined;
  const isStale = view.isDraft && view.basedOnVersion !== scale.latestVersion;
  const isReadable = view.bands.length === view.typed.length;
  const blocking = view.matters.filter(({ isBlocking }) => isBlocking);

  const change = (bands: readonly BandBody[], isSameStep: boolean) => {
    save.reset();
    changeDraft(scale.id, scale.latestVersion, view.typed, bands, isSameStep);
  };
  const moveTo = (index: number, wanted: number, isSameStep: boolean) => {
    const moved = moveCutOff(
      view.bands,
      index,
      decimalOrThrow(Math.max(0, wanted).toFixed(scale.digits)),
      scale.digits,
    );
    change(
      view.typed.map((band, place) =>
        place === view.places[index] ? { ...band, lowest: formatAtLeast(moved[index]!.lowest, scale.digits) } : band,
      ),
      isSameStep,
    );
  };
  const saveDraft = () => {
    const request = {
      basedOnVersion: view.basedOnVersion,
      fromPeriodId: period.id,
      bands: view.typed.map((band) => ({ ...band, points: band.points || null })),
    };
    save.mutate(request, {
      onSuccess: (saved) => {
        discardDraft(scale.id);
        toast.success(`Version ${saved.latestVersion} is in force from ${period.name} on.`, {
          description: 'Grades already posted keep the version they were posted under.',
        });
      },
      onError: (error) => !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error),
    });
  };
  const canSave = view.isDraft && isReadable && blocking.length === 0 && !save.isPending && !isStale;
  useKeys([
    { key: 'Ctrl+s', says: 'save the draft as the next version', inFields: true, act: () => canSave && saveDraft() },
    { key: 'u', says: 'take back the last step of the draft', act: () => undoDraft(scale.id) },
  ]);
  return (
    <Page
      headline={<ScaleHeadline scale={scale} view={view} periodName={period.name} />}
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={saveDraft}>
            Save as version {scale.latestVersion + 1} <Key>Ctrl S</Key>
          </Button>
          <Button disabled={!view.canUndo} onClick={() => undoDraft(scale.id)}>
            Take back a step
          </Button>
          <Button disabled={!view.isDraft} onClick={() => discardDraft(scale.id)}>
            Discard draft
          </Button>
        </>
      }
      aside={`Version ${scale.version.number}, in force since ${scale.version.fromPeriod}${scale.version.savedBy ? `, saved by ${scale.version.savedBy}` : ''}`}
    >
      <Panel label="Ruler">
        {isReadable ? (
          <Ruler
            bands={view.bands}
            savedBands={view.savedBands}
            histogram={view.histogram}
            digits={scale.digits}
            caption={`${plural(view.grades, 'percent')} of ${period.name}, by whole percent`}
            chosen={chosen === null ? null : view.places.indexOf(chosen)}
            onChoose={(index) => setChosen(view.places[index]!)}
            onMove={moveTo}
          />
        ) : (
          <p className="px-6 py-8 text-quiet">The ruler returns when every cut-off in the table is a number.</p>
        )}
      </Panel>
      <div className="grid items-start gap-3.5 min-[1180px]:grid-cols-[minmax(0,1fr)_380px]">
        <Panel label="Bands" className="pb-1">
          <BandTable
            view={view}
            digits={scale.digits}
            chosen={chosen}
            onChoose={setChosen}
            onChange={(place, changed) => {
              if (isUnchanged(view.typed[place]!, changed)) return;
              change(
                view.typed.map((band, at) => (at === place ? { ...band, ...changed } : band)),
                false,
              );
            }}
            serverFault={(place, field) => problem?.fault(`bands.${place}.${field}`)}
          />
        </Panel>
        <div className="space-y-3.5">
          <Panel label="Try a value">
            <TryValue bands={view.bands} precision={view.precision} />
          </Panel>
          {isStale && (
            <Note tone="blocks" title="Somebody saved this scale first">
              <p>
                Your draft began from version {view.basedOnVersion}; version {scale.latestVersion} is saved now. Compare
                with the dashed lines, then
              </p>
              <Button onClick={() => rebaseDraft(scale.id, scale.latestVersion)}>
                go on from version {scale.latestVersion}
              </Button>
            </Note>
          )}
          <Matters view={view} />
          <Panel label="Edges">
            <EdgesTable
              bands={view.bands}
              precision={view.precision}
              chosen={chosen === null ? undefined : view.typed[chosen]?.label}
            />
          </Panel>
        </div>
      </div>
    </Page>
  );
}

function isUnchanged(band: BandBody, changed: Partial<BandBody>): boolean {
  return Object.entries(changed).every(([name, value]) => band[name as keyof BandBody] === value);
}

function ScaleHeadline({ scale, view, periodName }: { scale: ScaleReply; view: ScaleView; periodName: string }) {
  const { path } = useScope();
  const { up, down } = view.effect;
  return (
    <>
      <Strong>{scale.name}</Strong> is in force in{' '}
      <Figure to={path('report-items')}>{plural(scale.coursesUsingIt, 'course')}</Figure>;{' '}
      <Strong tone={view.justBelow > 0 ? 'warns' : 'so'}>{plural(view.justBelow, 'grade')}</Strong> of {periodName}{' '}
      {view.justBelow === 1 ? 'lies' : 'lie'} less than half a point below a cut-off
      {!view.isDraft && '.'}
      {view.isDraft && up + down === 0 && ', and the draft would move none.'}
      {view.isDraft && up + down > 0 && (
        <>
          , and the draft would move {up > 0 && <Strong tone="warns">{showCount(up)} up</Strong>}
          {up > 0 && down > 0 && ' and '}
          {down > 0 && <Strong tone="blocks">{showCount(down)} down</Strong>}.
        </>
      )}
    </>
  );
}

function Matters({ view }: { view: ScaleView }) {
  const { matters } = view;
  if (matters.length === 0) return null;
  const title = matters.length === 1 ? 'One matter to settle' : `${matters.length} matters to settle`;
  return (
    <Note tone={matters.some(({ isBlocking }) => isBlocking) ? 'blocks' : 'warns'} title={title}>
      {matters.map(({ says }) => (
        <p key={says}>{says}</p>
      ))}
    </Note>
  );
}
