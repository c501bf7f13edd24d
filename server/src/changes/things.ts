import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DiscoveryService, Reflector } from '@nestjs/core';
import { kindAndId } from './thing-name.js';
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

  /** What people call a thing as it was or is, such as "the course Knots". */
  calledOf(thing: string, value: unknown): string {
    const known = this.find(kindAndId(thing)[0]);
    if (!known) return thing;
    return value !== null && known.way.title ? `${known.called} ${known.way.title(value)}` : known.called;
  }

  /** @throws Error for a kind that no provider declares */
  of(kind: string): KnownThing {
    const known = this.known.get(kind);
    if (!known) throw new Error(`no provider says how a ${kind} is read and written`);
    return known;
  }
}
