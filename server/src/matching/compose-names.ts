import { foldName, proposeTarget, type EarlierChoice, type MatchState, type Proposed } from '#core/matching';
import type { NameInClassReply, NameKind, NameMatchReply, TargetReply } from '#contract/matching';

/** One name as it is kept. */
export interface KeptName extends NameInClassReply {
  readonly kind: NameKind;
  readonly name: string;
}

export interface KeptChoice {
  readonly kind: string;
  readonly name: string;
  readonly key: string;
  readonly times: number;
}

/** All names of a platform, each once however often and in whatever capitals it occurs, with what is proposed for it. */
export function composeNames(
  names: readonly KeptName[],
  targets: Readonly<Record<NameKind, readonly TargetReply[]>>,
  choices: readonly KeptChoice[],
): NameMatchReply[] {
  const groups = new Map<string, KeptName[]>();
  for (const name of names) {
    const key = nameKey(name);
    const same = groups.get(key);
    if (same) same.push(name);
    else groups.set(key, [name]);
  }
  const earlier = countChoices(choices);
  return [...groups].map(([key, places]) => composeName(key, places, targets[places[0]!.kind], earlier.get(key) ?? []));
}

/** Letters differ by their signs: "A" and "A-" are two. */
function nameKey({ kind, name }: { readonly kind: string; readonly name: string }): string {
  return `${kind}|${kind === 'letter' ? name.trim() : foldName(name)}`;
}

function countChoices(choices: readonly KeptChoice[]): ReadonlyMap<string, EarlierChoice[]> {
  const counted = new Map<string, Map<string, number>>();
  for (const choice of choices) {
    const byTarget = counted.get(nameKey(choice)) ?? new Map<string, number>();
    byTarget.set(choice.key, (byTarget.get(choice.key) ?? 0) + choice.times);
    counted.set(nameKey(choice), byTarget);
  }
  return new Map(
    [...counted].map(([key, byTarget]) => [key, [...byTarget].map(([target, times]) => ({ key: target, times }))]),
  );
}

function composeName(
  key: string,
  kept: readonly KeptName[],
  targets: readonly TargetReply[],
  earlier: readonly EarlierChoice[],
): NameMatchReply {
  const [{ kind, name }] = kept as [KeptName];
  const weights = kept.flatMap(({ weight }) => (weight === null ? [] : [weight]));
  const proposed = proposeOne(kind, name, weights, targets, earlier);
  const joinedTo = new Set(kept.flatMap(({ decision, target }) => (decision === 'joined' ? [target] : [])));
  const places = kept.map(({ id, classId, weight, decision, target }) => ({ id, classId, weight, decision, target }));
  return {
    key,
    kind,
    name,
    places,
    state: stateOf(kept, proposed),
    target: joinedTo.size === 1 ? [...joinedTo][0]! : null,
    best: proposed.state === 'proposed' ? proposed.best : null,
    between: proposed.state === 'conflicting' ? proposed.between : [],
  };
}

/** A letter means the same letter or nothing: "A" is not a misspelt "B". */
function proposeOne(
  kind: NameKind,
  name: string,
  weights: readonly number[],
  targets: readonly TargetReply[],
  earlier: readonly EarlierChoice[],
): Proposed {
  const possible =
    kind === 'letter' ? targets.filter((each) => each.name === name.trim() || earlier.length > 0) : targets;
  return proposeTarget({ name, weights }, possible, earlier);
}

/** As long as one of them is open, the name is. */
function stateOf(kept: readonly KeptName[], { state }: Proposed): MatchState {
  if (kept.some(({ decision }) => decision === 'open')) return state;
  return kept.some(({ decision }) => decision === 'joined') ? 'joined' : 'ignored';
}
