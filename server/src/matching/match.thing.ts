import type { MatchKind } from '#contract/matching';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type Queries } from '#server/platform';
import { MatchesRepository, type Decided } from './matches.repository.js';

/** What was decided about one thing of a learning platform, by "platform/kind/number". */
@ThingOf({
  kind: 'match',
  called: 'the match',
  change: 'map',
  see: 'read-map',
  at: (id) => ({ kind: 'platform', id: Number(id.split('/')[0]) }),
})
export class MatchThing implements Thing<Decided> {
  constructor(private readonly matches: MatchesRepository) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, Decided>> {
    const found = new Map<string, Decided>();
    for (const { platformId, kind, own } of byKind(ids))
      for (const [id, decided] of await this.matches.decidedAbout(queries, platformId, kind, own))
        found.set(matchId(platformId, kind, id), decided);
    return found;
  }

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const names = new Map<string, string>();
    for (const { platformId, kind, own } of byKind(ids))
      for (const [id, name] of await this.matches.namesOf(queries, kind, own))
        names.set(matchId(platformId, kind, id), `${kind} ${name}`);
    return names;
  }

  async check(): Promise<void> {}

  /** @throws Refusal class-joined-twice where two classes of a platform came to be joined to one section */
  async write(queries: Queries, values: ReadonlyMap<string, Decided | null>): Promise<void> {
    const platforms = new Set<number>();
    for (const { platformId, kind, own } of byKind([...values.keys()])) {
      const written = own.map((id) => ({ id, after: values.get(matchId(platformId, kind, id)) ?? open }));
      await this.matches.write(queries, kind, written);
      platforms.add(platformId);
    }
    for (const platformId of platforms) {
      const twice = await this.matches.joinedTwice(queries, platformId);
      if (twice)
        throw new Refusal('class-joined-twice', { section: twice.section, titles: twice.titles.join('" and "') });
    }
  }
}

const open: Decided = { decision: 'open', target: null };

export function matchId(platformId: number, kind: MatchKind, id: number): string {
  return `${platformId}/${kind}/${id}`;
}

/** The numbers of each kind of each platform. */
function byKind(names: readonly string[]) {
  const groups = new Map<string, { platformId: number; kind: MatchKind; own: number[] }>();
  for (const name of names) {
    const [platform, kind, id] = name.split('/') as [string, MatchKind, string];
    const group = groups.get(`${platform}/${kind}`) ?? { platformId: Number(platform), kind, own: [] };
    group.own.push(Number(id));
    groups.set(`${platform}/${kind}`, group);
  }
  return groups.values();
}
