import { Lock } from 'lucide-react';
import { useState } from 'react';
import { placeKey, placementKinds } from '#core/scales';
import { placeOf, type PlacementReply, type PlaceScaleRequest, type ScalesReply } from '#contract/scales';
import { agreeing, counted } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { SetUpNote } from '../set-up/set-up-note';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showCount } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { EffectDialog } from './effect/effect-dialog';
import { usePlaceScale } from './queries';
import { NewPlacement } from './new-placement';

type CourseRow = ScalesReply['courses'][number];

/** Where which scale is in force: from the district down to one course, with locks, and what each course ends up with. */
export function PlacementsDesk({ reply, viewSwitch }: { reply: ScalesReply; viewSwitch: React.ReactNode }) {
  const { schoolId } = useScope();
  const { period, termLine } = usePeriod();
  const [looked, setLooked] = useState<LookedAt | null>(null);
  const place = usePlaceScale(schoolId);
  const tellOfChange = useTellOfChange();
  const nameOf = (id: number | null) =>
    reply.scales.find((scale) => scale.id === id)?.name ?? 'a scale of a later period';
  const without = reply.courses.filter(({ scaleId }) => scaleId === null).length;
  const put = (request: PlaceScaleRequest, says: string) =>
    place.mutate(request, { onSuccess: (after) => tellOfChange(says, after), onError: showProblem });
  const places = reply.placements.filter(({ isBegun }) => isBegun).length;
  const fromPeriodId = period?.id ?? 0;
  const seen = (request: Omit<PlaceScaleRequest, 'revision'>): PlaceScaleRequest => ({
    ...request,
    revision: reply.placeRevisions[placeKey(placeOf(schoolId, request))] ?? null,
  });
  const requestOf = ({ id: _id, place: _place, fromPeriod: _from, isBegun: _begun, ...request }: PlacementReply) =>
    seen({ ...request, fromPeriodId });
  const columns: GridColumn<CourseRow>[] = [
    {
      id: 'title',
      header: 'Course',
      sortBy: ({ title }) => title,
      cell: ({ title }) => <b className="font-semibold">{title}</b>,
    },
    {
      id: 'scale',
      header: 'Scale',
      width: '170px',
      sortBy: ({ scaleId }) => (scaleId === null ? '' : nameOf(scaleId)),
      cell: ({ scaleId }) => (scaleId === null ? <span className="text-waratah">none</span> : nameOf(scaleId)),
    },
    {
      id: 'from',
      header: 'Set by',
      width: '190px',
      sortBy: ({ placementId }) => reply.placements.find(({ id }) => id === placementId)?.place ?? '',
      cell: ({ placementId, overruled }) => {
        const source = reply.placements.find(({ id }) => id === placementId);
        return (
          <span className="text-quiet">
            {source?.place ?? 'nothing'}
            {overruled > 0 && `, locked over ${showCount(overruled)} below`}
          </span>
        );
      },
    },
  ];
  return (
    <Page
      headline={
        <>
          <Strong>{counted(places, 'place')}</Strong> {agreeing(places, 'sets')} the scales of{' '}
          {termLine?.school.shortName} in {period?.name}
          {without === 0 ? (
            '; every course has one.'
          ) : (
            <>
              ; <Strong tone="blocks">{counted(without, 'course')}</Strong> {agreeing(without, 'has')} none, and a
              percentage would get no label.
            </>
          )}
        </>
      }
      aside={viewSwitch}
    >
      <SetUpNote place="scales" />
      <div className="grid flex-1 gap-3.5 min-[1140px]:min-h-[420px] min-[1140px]:grid-cols-[420px_minmax(0,1fr)]">
        <div className="space-y-3 min-[1140px]:overflow-auto">
          <Panel label="Places">
            <ol>
              {reply.placements
                .toSorted((a, b) => placementKinds.indexOf(a.kind) - placementKinds.indexOf(b.kind))
                .map((placement) => (
                  <li
                    key={placement.id}
                    className="flex items-center gap-2 border-t border-hairline px-4 py-2 first:border-t-0"
                  >
                    <span className="min-w-0 flex-1">
                      <b className="block truncate first-letter:uppercase">{placement.place}</b>
                      <span className="text-[13px] text-quiet">
                        {nameOf(placement.scaleId)}
                        {placement.fromPeriod !== null && `, from ${placement.fromPeriod} on`}
                        {!placement.isBegun && '; it begins later, so until then a wider place counts'}
                      </span>
                    </span>
                    <button
                      type="button"
                      aria-pressed={placement.isLocked}
                      title={placement.isLocked ? 'locked: nothing below may differ' : 'places below may differ'}
                      onClick={() =>
                        setLooked({
                          request: { ...requestOf(placement), isLocked: !placement.isLocked },
                          title: `What ${placement.isLocked ? 'unlocking' : 'locking'} the scale of ${placement.place} would do`,
                          does: placement.isLocked ? 'Unlock it' : 'Lock it',
                          says: placement.isLocked ? 'Places below may differ now.' : 'Nothing below may differ now.',
                        })
                      }
                      className="flex items-center gap-1 rounded-md border border-hairline px-2 py-1 text-[12px] text-quiet aria-pressed:border-eucalypt aria-pressed:text-eucalypt"
                    >
                      <Lock size={12} aria-hidden /> {placement.isLocked ? 'locked' : 'lock'}
                    </button>
                    <Button
                      writes
                      look="quiet"
                      onClick={() =>
                        setLooked({
                          request: { ...requestOf(placement), scaleId: null },
                          title: `What it would do if ${placement.place} inherited its scale`,
                          does: `Inherit from ${period?.name ?? 'now'} on`,
                          says: `${placement.place} inherits again.`,
                        })
                      }
                    >
                      Inherit
                    </Button>
                  </li>
                ))}
            </ol>
            {reply.placements.length === 0 && (
              <Empty title="No scale is used anywhere yet">Use one for the school first.</Empty>
            )}
            {reply.laterPlacements.map(({ place: where, scale, fromPeriod }) => (
              <p key={`${where} ${fromPeriod}`} className="border-t border-hairline px-4 py-2 text-[13px] text-quiet">
                From {fromPeriod} on: {where} {scale === null ? 'inherits' : `uses ${scale}`}.
              </p>
            ))}
          </Panel>
          <NewPlacement
            reply={reply}
            fromPeriodId={fromPeriodId}
            periodName={period?.name ?? ''}
            onPut={(request) =>
              setLooked({
                request: seen(request),
                title: `What using ${nameOf(request.scaleId)} there would do`,
                does: `Use it from ${period?.name ?? 'now'} on`,
                says: `${nameOf(request.scaleId)} is used there from ${period?.name ?? 'now'} on.`,
              })
            }
          />
        </div>
        <Panel className="flex min-h-[420px] flex-col min-[1140px]:min-h-0">
          <DataGrid
            label="Courses and their scale"
            columns={columns}
            rows={reply.courses}
            rowKey={({ id }) => String(id)}
            empty={<Empty title="No course yet">Courses are made under Courses.</Empty>}
          />
        </Panel>
      </div>
      {looked && (
        <EffectDialog
          title={looked.title}
          change={{ kind: 'placement', schoolId, request: looked.request }}
          periodName={period?.name ?? ''}
          does={looked.does}
          canDo={!place.isPending}
          onDo={() => {
            put(looked.request, looked.says);
            setLooked(null);
          }}
          back="Cancel"
          onClose={() => setLooked(null)}
        />
      )}
    </Page>
  );
}

/** A change of a place that is looked at before it is made. */
interface LookedAt {
  readonly request: PlaceScaleRequest;
  readonly title: string;
  readonly does: string;
  readonly says: string;
}
