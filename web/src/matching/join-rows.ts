import { byNeed, type MatchState, type Proposal } from '#core/matching';
import type { MatchDecisionBody, NameKind, NameMatchReply } from '#contract/matching';
import { sayReasons } from './words';

/** A name of theirs on the board, over all classes or in one. */
export interface JoinRow {
  readonly key: string;
  readonly kind: NameKind;
  readonly name: string;
  /** Numbers of the names decided together. */
  readonly ids: readonly number[];
  readonly openIds: readonly number[];
  readonly weights: readonly (number | null)[];
  readonly state: MatchState;
  readonly target: string | null;
  readonly best: Proposal | null;
  readonly between: readonly Proposal[];
}

/** The names of a kind, those that need a decision first and the doubtful before the sure. */
export function rowsOverAll(names: readonly NameMatchReply[], kind: NameKind): JoinRow[] {
  return names
    .filter((each) => each.kind === kind)
    .map((name) => rowOf(name, name.places, name.state, name.target))
    .toSorted(inOrder);
}

/** The names of a kind in one class, with what is decided there. */
export function rowsOfClass(names: readonly NameMatchReply[], kind: NameKind, classId: number): JoinRow[] {
  return names
    .filter((each) => each.kind === kind)
    .flatMap((name) =>
      name.places
        .filter((place) => place.classId === classId)
        .map((place) => {
          const state = place.decision === 'open' ? openState(name) : place.decision;
          return rowOf({ ...name, key: `${name.key}|${place.id}` }, [place], state, place.target);
        }),
    )
    .toSorted(inOrder);
}

/** What takes every proposal for a name that is at least so sure, in percent. */
export function decisionsAbove(line: number, names: readonly NameMatchReply[]): MatchDecisionBody[] {
  return names.flatMap(({ kind, places, state, best }) =>
    state === 'proposed' && best && best.confidence >= line
      ? [{ kind, ids: openIdsOf(places), decision: 'joined' as const, target: best.key }]
      : [],
  );
}

/** Why a row is as it is. */
export function sayRow({ state, best, between }: JoinRow, nameOf: (key: string) => string): string {
  if (state === 'proposed' && best) return sayReasons(best.reasons);
  if (state === 'conflicting') return `${between.map(({ key }) => nameOf(key)).join(' or ')}?`;
  return state === 'unmatched' ? 'nothing here is called like it' : state === 'ignored' ? 'ignored' : '';
}

function openState({ best, between }: NameMatchReply): MatchState {
  return best ? 'proposed' : between.length > 0 ? 'conflicting' : 'unmatched';
}

function rowOf(
  { key, kind, name, best, between }: NameMatchReply,
  places: NameMatchReply['places'],
  state: MatchState,
  target: string | null,
): JoinRow {
  const ids = places.map(({ id }) => id);
  return {
    key,
    kind,
    name,
    ids,
    openIds: openIdsOf(places),
    weights: places.map(({ weight }) => weight),
    state,
    target,
    best,
    between,
  };
}

function openIdsOf(places: NameMatchReply['places']): number[] {
  return places.filter(({ decision }) => decision === 'open').map(({ id }) => id);
}

function inOrder(a: JoinRow, b: JoinRow): number {
  return byNeed(a, b) || b.ids.length - a.ids.length;
}
