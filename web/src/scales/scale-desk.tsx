import { useState } from 'react';
import type { PeriodReply } from '#contract/calendar';
import type { BandBody, ScaleReply, ScalesReply } from '#contract/scales';
import { decimalOrThrow, formatAtLeast, formatDecimal } from '#core/numbers';
import { moveCutOff } from '#core/scales';
import { counted } from '#contract/messages';
import { HistoryButton } from '../changes/history-button';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { SetUpNote } from '../set-up/set-up-note';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { Button, Key } from '../ui/button';
import { Changeable } from '../ui/changeable';
import { useViewOnly } from '../ui/view-only';
import { Page } from '../ui/page';
import { Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { BandTable } from './band-table';
import { scaleDrafts } from './scale-drafts';
import { EdgesTable } from './edges-table';
import { EffectDialog } from './effect/effect-dialog';
import { ImportScaleDialog } from './import-scale-dialog';
import { useRemoveScale, useSaveScale } from './queries';
import { Ruler } from './ruler';
import { ScaleFactsDialog } from './scale-facts-dialog';
import { ScaleHeadline } from './scale-headline';
import { ScaleMatters } from './scale-matters';
import { ScaleList } from './scale-list';
import { TryValue } from './try-value';
import { useScaleView } from './use-scale-view';
import { VersionList } from './version-list';

interface ScaleDeskProps {
  readonly reply: ScalesReply;
  readonly scale: ScaleReply;
  readonly period: PeriodReply;
  readonly viewSwitch: React.ReactNode;
  readonly onChoose: (id: number) => void;
  readonly onAdd: () => void;
}

/** One scale to look at, to try and to change. A change is a draft until it is saved as the next version. */
export function ScaleDesk({ reply, scale, period, viewSwitch, onChoose, onAdd }: ScaleDeskProps) {
  const view = useScaleView(scale, reply.codes);
  const save = useSaveScale(scale.id);
  const remove = useRemoveScale(period.id);
  const tellOfChange = useTellOfChange();
  const [chosen, setChosen] = useState<number | null>(null);
  const [dialog, setDialog] = useState<'effect' | 'import' | 'facts' | undefined>();
  const problem = save.error instanceof ProblemError ? save.error : undefined;
  const ofFollowers = problem?.fault('followers');
  const isTied = scale.tie !== null;
  const { isViewOnly } = useViewOnly();
  const isStale = view.isDraft && view.basedOnVersion !== scale.latestVersion;
  const isReadable = view.bands.length === view.typed.length;
  const blocking = view.matters.filter(({ isBlocking }) => isBlocking);

  const change = (bands: readonly BandBody[], isSameStep: boolean) => {
    save.reset();
    scaleDrafts.change(scale.id, scale.latestVersion, view.savedTyped, bands, isSameStep);
  };
  const moveTo = (index: number, wanted: number, isSameStep: boolean) => {
    if (isTied) return;
    const to = decimalOrThrow(Math.max(0, wanted).toFixed(scale.digits));
    const lowest = formatAtLeast(moveCutOff(view.cut, index, to, scale.digits, view.top)[index]!.lowest, scale.digits);
    change(
      view.typed.map((band, place) => (place === view.cutPlaces[index] ? { ...band, lowest } : band)),
      isSameStep,
    );
  };
  const bodies = () =>
    view.typed.map((band) => ({ ...band, lowest: band.lowest || null, points: band.points || null }));
  const saveDraft = () =>
    save.mutate(
      { basedOnVersion: view.basedOnVersion, fromPeriodId: period.id, bands: bodies() },
      {
        onSuccess: (after) => {
          scaleDrafts.discard(scale.id);
          setDialog(undefined);
          const number = scale.latestVersion + 1;
          tellOfChange(
            `Version ${number} is used from ${period.name} on. Grades already posted keep the version they were posted under.`,
            after,
          );
        },
        onError: (error) => {
          setDialog(undefined);
          // What is wrong with a band stands beneath its row.
          if (!(error instanceof ProblemError && error.problem.errors.length > 0)) showProblem(error);
        },
      },
    );
  // The desk is gone once its scale is: what follows must not hang on it.
  const takeOut = () =>
    void remove.mutateAsync(scale.id).then((after) => tellOfChange(`${scale.name} is deleted.`, after), showProblem);
  const canSave = view.isDraft && isReadable && blocking.length === 0 && !save.isPending && !isStale;
  const look = () => canSave && setDialog('effect');
  useKeys([
    ...(dialog === 'effect'
      ? []
      : [{ key: 'Ctrl+s', says: 'preview the draft and save it', inFields: true, act: look }]),
    { key: 'u', says: 'undo the last step of the draft', act: () => scaleDrafts.undo(scale.id) },
  ]);
  return (
    <Page
      headline={<ScaleHeadline scale={scale} view={view} periodName={period.name} />}
      actions={
        view.isDraft ? (
          <>
            <Button look="main" disabled={!canSave} onClick={look}>
              Preview and save <Key>Ctrl S</Key>
            </Button>
            <Button writes disabled={!view.canUndo} onClick={() => scaleDrafts.undo(scale.id)}>
              Undo last step
            </Button>
            <Button writes onClick={() => scaleDrafts.discard(scale.id)}>
              Discard draft
            </Button>
          </>
        ) : (
          <>
            <Button writes onClick={onAdd}>
              New scale
            </Button>
            <Button writes onClick={() => setDialog('facts')}>
              Name and tie
            </Button>
            {!isTied && (
              <Button writes onClick={() => setDialog('import')}>
                Import bands
              </Button>
            )}
            <HistoryButton thing={`scale ${scale.id}`} called={scale.name} />
            <Button writes look="quiet" onClick={takeOut}>
              Delete
            </Button>
          </>
        )
      }
      aside={viewSwitch}
    >
      <SetUpNote place="scales" />
      <ScaleList scales={reply.scales} chosenId={scale.id} onChoose={onChoose} />
      {view.cut.length > 0 && (
        <Panel label="Ruler">
          {isReadable ? (
            <Changeable>
              <Ruler
                bands={view.cut}
                savedBands={view.savedBands}
                histogram={view.histogram}
                top={Number(formatDecimal(view.top))}
                digits={scale.digits}
                caption={`${counted(view.grades, scale.highestLevel === null ? 'percent' : 'level')} of ${[period.name, ...scale.items].join(', ')}, by ${scale.highestLevel === null ? 'whole percentage' : 'tenth of a level'}`}
                chosen={chosen === null ? null : view.cutPlaces.indexOf(chosen)}
                onChoose={(index) => setChosen(view.cutPlaces[index]!)}
                onMove={moveTo}
              />
            </Changeable>
          ) : (
            <p className="px-6 py-8 text-quiet">The ruler returns when every cut-off in the table is a number.</p>
          )}
        </Panel>
      )}
      <div className="grid items-start gap-3.5 min-[1180px]:grid-cols-[minmax(0,1fr)_360px]">
        <Panel label="Bands" className="pb-1">
          <BandTable
            view={view}
            digits={scale.digits}
            isReadOnly={isTied || isViewOnly}
            chosen={chosen}
            onChoose={setChosen}
            onChange={(place, changed) => {
              if (isUnchanged(view.typed[place]!, changed)) return;
              change(
                view.typed.map((band, at) => (at === place ? { ...band, ...changed } : band)),
                false,
              );
            }}
            onReplace={(bands) => change(bands, false)}
            serverFault={(place, field) => problem?.fault(`bands.${place}.${field}`)}
          />
        </Panel>
        <div className="space-y-3.5">
          {scale.tie && (
            <Note tone="so" title={`Follows ${scale.tie.toName}`}>
              <p>
                Its cut-offs lie {signed(scale.tie.cutOffShift)} and its grade points {signed(scale.tie.pointsShift)}{' '}
                beside it. To change it, change {scale.tie.toName}, or untie it under “Name and tie”.
              </p>
            </Note>
          )}
          {isStale && (
            <Note tone="blocks" title="Someone else saved this scale">
              <p>
                Your draft began from version {view.basedOnVersion}; version {scale.latestVersion} is saved now. Compare
                with the dashed lines, then
              </p>
              <Button onClick={() => scaleDrafts.rebase(scale.id, scale.latestVersion)}>
                go on from version {scale.latestVersion}
              </Button>
            </Note>
          )}
          {ofFollowers && (
            <Note tone="blocks" title="A scale that follows could not">
              <p>{ofFollowers}</p>
            </Note>
          )}
          <ScaleMatters view={view} scale={scale} />
          {view.cut.length > 0 && (
            <>
              <Panel label="Try a value">
                <TryValue bands={view.bands} precision={view.precision} highestLevel={scale.highestLevel} />
              </Panel>
              <Panel label="Edges">
                <EdgesTable
                  bands={view.bands}
                  precision={view.precision}
                  chosen={chosen === null ? undefined : view.typed[chosen]?.label}
                />
              </Panel>
            </>
          )}
          <VersionList scale={scale} />
        </div>
      </div>
      {dialog === 'effect' && (
        <EffectDialog
          title={`What the draft of ${scale.name} would do`}
          change={{ kind: 'draft', scaleId: scale.id, periodId: period.id, bands: bodies() }}
          periodName={period.name}
          does={`Save as version ${scale.latestVersion + 1} from ${period.name} on`}
          canDo={canSave}
          onDo={saveDraft}
          back="Back to the draft"
          onClose={() => setDialog(undefined)}
        />
      )}
      {dialog === 'import' && (
        <ImportScaleDialog
          scale={scale}
          onClose={() => setDialog(undefined)}
          onTake={(bands) => {
            change(bands, false);
            setDialog(undefined);
          }}
        />
      )}
      {dialog === 'facts' && (
        <ScaleFactsDialog reply={reply} scale={scale} period={period} onClose={() => setDialog(undefined)} />
      )}
    </Page>
  );
}

function isUnchanged(band: BandBody, changed: Partial<BandBody>): boolean {
  return Object.entries(changed).every(([name, value]) => (band[name as keyof BandBody] ?? '') === value);
}

function signed(shift: string): string {
  const value = formatAtLeast(decimalOrThrow(shift), 1);
  return Number(value) === 0 ? 'nothing' : Number(value) > 0 ? `${value} above` : `${value.replace('-', '')} below`;
}
