import { createParamDecorator, SetMetadata, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import type { Actor } from './actor.js';

/** Whether somebody may use a route at all; what they may touch with it is for the domain's policy to say. */
export type RoutePolicy = (actor: Actor) => boolean;

export const ACCESS = 'access';

/** Lets through whom the policy lets through. A route without this or `Public` lets nobody through. */
export const Allow = (policy: RoutePolicy) => SetMetadata(ACCESS, policy);

/** Lets everybody through, signed in or not. */
export const Public = () => SetMetadata(ACCESS, 'public');

/** The signed-in person, as an argument of a handler. */
export const CurrentActor = createParamDecorator((_data: unknown, context: ExecutionContext): Actor => {
  const { actor } = context.switchToHttp().getRequest<Request>();
  if (!actor) throw new Error('CurrentActor on a route that lets people through who are not signed in');
  return actor;
});

export const registrars: RoutePolicy = ({ role }) => role === 'registrar';
export const everyone: RoutePolicy = () => true;
