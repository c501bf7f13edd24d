import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DiscoveryService, Reflector } from '@nestjs/core';
import { registrars, type Actor, type Queries } from '#server/platform';
import { kindAndId, thingName } from './thing-name.js';
import { THING, type Thing, type ThingFacts } from './thing.js';

/** A kind of thing with the way to it. Its values are its own; here they are only compared and handed on. */
export type KnownThing = ThingFacts & { readonly way: Thing<unknown> };

/** Every kind of thing that a domain offers, found among its providers. */
@Injectable()
export class Things implements OnModuleInit {
  private known: ReadonlyMap<string, KnownThing> = new Map();

  constructor(
    private readonly discovery: DiscoveryService,
    private readonly reflector: Reflector,
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

  /** Whether somebody may change things, all of them. */
  async canChange(queries: Queries, actor: Actor, names: readonly string[]): Promise<boolean> {
    for (const [kind, ids] of byKind(names)) {
      const known = this.find(kind);
      if (!(known?.policy ?? registrars)(actor)) return false;
      if (known?.way.canChange && !(await known.way.canChange(queries, ids, actor))) return false;
    }
    return true;
  }

  /** Whether somebody may look at things; what no domain offers a way to is the registrar's. */
  async canSee(queries: Queries, actor: Actor, names: readonly string[]): Promise<boolean> {
    for (const [kind, ids] of byKind(names)) {
      const known = this.find(kind);
      const canSee = known?.way.canSee?.bind(known.way) ?? known?.way.canChange?.bind(known.way);
      if (!(known?.policy ?? registrars)(actor) || (canSee && !(await canSee(queries, ids, actor)))) return false;
    }
    return true;
  }

  /** The names of things that their values do not tell, by thing. */
  async namesOf(queries: Queries, things: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const names = new Map<string, string>();
    for (const [kind, ids] of byKind([...new Set(things)])) {
      const own = await this.find(kind)?.way.names?.(queries, ids);
      for (const [id, name] of own ?? []) names.set(thingName(kind, id), name);
    }
    return names;
  }

  async hold(queries: Queries, names: readonly string[]): Promise<void> {
    for (const [kind, ids] of byKind(names)) await this.find(kind)?.way.hold?.(queries, ids);
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
function byKind(names: readonly string[]): Map<string, string[]> {
  const ids = new Map<string, string[]>();
  for (const [kind, id] of names.map(kindAndId)) {
    const own = ids.get(kind);
    if (own) own.push(id);
    else ids.set(kind, [id]);
  }
  return ids;
}
