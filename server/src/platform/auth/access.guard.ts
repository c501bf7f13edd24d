import { timingSafeEqual } from 'node:crypto';
import { Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { Refusal } from '../errors/refusal.js';
import { ACCESS, type RoutePolicy } from './access.js';
import { Actors } from './actors.js';

/** Denies every route unless its policy allows it, and every write that does not carry the session's own token. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly actors: Actors,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Request>();
    const access = this.reflector.getAllAndOverride<RoutePolicy | 'public' | undefined>(ACCESS, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (isFromElsewhere(request)) throw new Refusal('token-missing');
    if (access === 'public') return true;
    const { signedIn } = request.session;
    const actor = signedIn && (await this.actors.of(signedIn));
    if (!actor) throw new Refusal('not-signed-in');
    if (!access?.(actor)) throw new Refusal('not-allowed');
    if (!isReading(request) && !hasToken(request)) throw new Refusal('token-missing');
    request.actor = actor;
    return true;
  }
}

const isReading = ({ method }: Request) => method === 'GET' || method === 'HEAD';

/** A write that a browser sends for another site's page. */
function isFromElsewhere(request: Request): boolean {
  const site = request.get('sec-fetch-site');
  return !isReading(request) && site !== undefined && site !== 'same-origin' && site !== 'none';
}

function hasToken(request: Request): boolean {
  const expected = Buffer.from(request.session.csrfToken ?? '');
  const given = Buffer.from(request.get('x-csrf-token') ?? '');
  return expected.length > 0 && expected.length === given.length && timingSafeEqual(expected, given);
}
