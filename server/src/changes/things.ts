import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DiscoveryService, Reflector } from '@nestjs/core';
import { may, mayAt, schoolsWhere, type Whereabouts as Where } from '#core/access';
import { Whereabouts, type Actor, type PlaceOf, type Queries } from '#server/platform';
import { kindAndId, thingName } from './thing-name.js';
import { THING, type Thing, type ThingFacts } from './thing.js';

/** A kind of thing with the way to it. Its values are its own; here they are only compared and handed on. */
export type KnownThing = ThingFacts & { readonly way: Thing<unknown> };

/** A thing by its name, and what it was or is to be, where it is asked about a change. */
export interface Concerned {
  readonly thing: string;
  readonly values: readonly unknown[];
}

/** Every kind of thing that a domain offers, found among its providers. */
@Injectable()
export class Things implements OnModuleInit {
  private known: ReadonlyMap<string, KnownThing> = new Map();

  constructor(
    private readonly discovery: DiscoveryService,
    private readonly reflector: Reflector,
    private readonly whereabouts: Whereabouts,
  ) {}

  onModuleInit(): void {
    this.known = new Map(
      this.discovery.getProviders().flatMap(({ metatype, instance }) => {
        const facts = metatype ? this.reflector.get<ThingFacts | undefined>(THING, metatype) : undefined;
        return facts ? [[facts.kind, { ...facts, way: instance as Thing<unknown> }] as const] : [];
      }),
    );
  }

  /** Undefined for what the log tells of and no domain offers a way to. */
  find(kind: string): KnownThing | undefined {
    return this.known.get(kind);
  }

  /** Whether somebody may change things, all of them, into what they are to be. */
  canChange(queries: Queries, actor: Actor, things: readonly Concerned[]): Promise<boolean> {
    return this.may(queries, actor, 'change', things);
  }

  /** Whether somebody may look at a thing; what no domain offers a way to is for who may read the log. */
  canSee(queries: Queries, actor: Actor, thing: string): Promise<boolean> {
    return this.may(queries, actor, 'see', [{ thing, values: [] }]);
  }

  private async may(
    queries: Queries,
    actor: Actor,
    what: 'change' | 'see',
    things: readonly Concerned[],
  ): Promise<boolean> {
    for (const [kind, own] of byKind(things)) {
      const known = this.find(kind);
      const action = known?.[what] ?? 'read-log';
      // Who may do this everywhere need not be asked where the things are.
      if (schoolsWhere(actor.grants, action, 'held') === 'all') continue;
      if (!known || !may(actor, action)) return false;
      const places = known.at ? own.map(({ id }) => known.at!(id)) : await this.placesWithin(queries, known, own);
      const standing = await this.standing(queries, places, things);
      if (!standing.every((where) => where !== undefined && mayAt(actor, action, where))) return false;
    }
    return true;
  }

  /** Where places stand; what the same change makes or made stands where that says. Undefined for one that there is not. */
  private async standing(
    queries: Queries,
    places: readonly (PlaceOf | null)[],
    things: readonly Concerned[],
  ): Promise<(Where | undefined)[]> {
    const found = await this.whereabouts.of(places, queries);
    const made = places.flatMap((place, at) => (place && found[at] === undefined ? this.madeAt(place, things) : []));
    if (made.length === 0) return found;
    return [...found.filter((where) => where !== undefined), ...(await this.whereabouts.of(made, queries))];
  }

  private madeAt(place: PlaceOf, things: readonly Concerned[]): (PlaceOf | null)[] {
    const name = thingName(place.kind, String(place.id));
    const made = things.find(({ thing }) => thing === name)?.values.filter((value) => (value ?? null) !== null) ?? [];
    return made.length === 0 ? [place] : made.flatMap((value) => this.find(place.kind)?.way.within?.(value) ?? [place]);
  }

  /** Where things stand by what they are, were or are to be; one of which nothing is known, where only all schools reach. */
  private async placesWithin(
    queries: Queries,
    { way }: KnownThing,
    things: readonly { readonly id: string; readonly values: readonly unknown[] }[],
  ): Promise<(PlaceOf | null)[]> {
    const standing = await way.read(
      queries,
      things.map(({ id }) => id),
    );
    return things.flatMap(({ id, values }) => {
      const known = [...values, standing.get(id)].filter((value) => (value ?? null) !== null);
      return known.length === 0 ? [null] : known.flatMap((value) => way.within?.(value) ?? [null]);
    });
  }

  /** The names of things that their values do not tell, by thing. */
  async namesOf(queries: Queries, things: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const names = new Map<string, string>();
    for (const [kind, ids] of idsByKind([...new Set(things)])) {
      const own = await this.find(kind)?.way.names?.(queries, ids);
      for (const [id, name] of own ?? []) names.set(thingName(kind, id), name);
    }
    return names;
  }

  async hold(queries: Queries, names: readonly string[]): Promise<void> {
    for (const [kind, ids] of idsByKind(names)) await this.find(kind)?.way.hold?.(queries, ids);
  }

  /** What people call a thing as it was or is, such as "the course Knots". */
  calledOf(thing: string, value: unknown, names?: ReadonlyMap<string, string>): string {
    const [kind] = kindAndId(thing);
    const known = this.find(kind);
    if (!known) return nameIn(value) ? `${kind} ${nameIn(value)}` : thing;
    const name = names?.get(thing);
    if (name !== undefined) return `${known.called} of ${name}`;
    return value !== null && known.way.title ? `${known.called} ${known.way.title(value)}` : known.called;
  }

  /** Every kind that can be changed, by what it is called. */
  kinds(): { readonly kind: string; readonly called: string }[] {
    return [...this.known.values()]
      .map(({ kind, called }) => ({ kind, called }))
      .toSorted((a, b) => (a.called < b.called ? -1 : 1));
  }

  /** @throws Error for a kind that no provider declares */
  of(kind: string): KnownThing {
    const known = this.known.get(kind);
    if (!known) throw new Error(`no provider says how a ${kind} is read and written`);
    return known;
  }
}

/** What was written down of something that no domain offers a way to, such as a file or whose transcript was read. */
function nameIn(value: unknown): string | undefined {
  const { name } = (value ?? {}) as { readonly name?: unknown };
  return typeof name === 'string' && name !== '' ? name : undefined;
}

/** The ids of things by their kind. */
function idsByKind(names: readonly string[]): Map<string, string[]> {
  const kinds = byKind(names.map((thing) => ({ thing, values: [] })));
  return new Map([...kinds].map(([kind, own]) => [kind, own.map(({ id }) => id)]));
}

/** Things by their kind, each with its id. */
function byKind(things: readonly Concerned[]): Map<string, (Concerned & { readonly id: string })[]> {
  const kinds = new Map<string, (Concerned & { readonly id: string })[]>();
  for (const each of things) {
    const [kind, id] = kindAndId(each.thing);
    const own = kinds.get(kind);
    if (own) own.push({ ...each, id });
    else kinds.set(kind, [{ ...each, id }]);
  }
  return kinds;
}
