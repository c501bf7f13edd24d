import { createParamDecorator, SetMetadata, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import type { Action } from '#core/access';
import type { Actor } from './actor.js';
import type { PlaceKind } from './whereabouts.js';

/**
 * What a route does, and which things of the request it does it to: by kind, where the number of each stands, or a list of
 * numbers. A name alone is a parameter of the address; `query.x` and `body.x` stand there.
 */
export interface RouteAccess {
  readonly action: Action;
  readonly places: Readonly<Partial<Record<PlaceKind, string | readonly string[]>>>;
}

export const ACCESS = 'access';

/**
 * Lets through who may do this to all of these; a route without this or `Public` lets nobody through. Without a place the route
 * answers only what the person may see, or the service asks.
 */
export const May = (action: Action, places: RouteAccess['places'] = {}) =>
  SetMetadata(ACCESS, { action, places } satisfies RouteAccess);

/** Lets everybody through, signed in or not. */
export const Public = () => SetMetadata(ACCESS, 'public');

export const WHILE_SEEING = 'while-seeing';

/** A write that is allowed even while somebody looks at what another person sees: the way back. */
export const WhileSeeing = () => SetMetadata(WHILE_SEEING, true);

/** The signed-in person, as an argument of a handler. */
export const CurrentActor = createParamDecorator((_data: unknown, context: ExecutionContext): Actor => {
  const { actor } = context.switchToHttp().getRequest<Request>();
  if (!actor) throw new Error('CurrentActor on a route that lets people through who are not signed in');
  return actor;
});
