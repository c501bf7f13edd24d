import { timingSafeEqual } from 'node:crypto';
import { Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { may, mayAt, schoolsWhere } from '#core/access';
import { largestId } from '#contract/requests';
import { Refusal } from '../errors/refusal.js';
import { ACCESS, WHILE_SEEING, type RouteAccess } from './access.js';
import type { Actor } from './actor.js';
import { Actors } from './actors.js';
import { Whereabouts, type PlaceKind, type PlaceOf } from './whereabouts.js';

/** Denies every route unless the access matrix allows it, and every write that does not carry the session's own token. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly actors: Actors,
    private readonly whereabouts: Whereabouts,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Request>();
    const access = this.reflector.getAllAndOverride<RouteAccess | 'public' | undefined>(ACCESS, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (isFromElsewhere(request)) throw new Refusal('token-missing');
    if (access === 'public') return true;
    const { signedIn } = request.session;
    const actor = signedIn && (await this.actors.of(signedIn));
    if (!actor) throw new Refusal('not-signed-in');
    if (!access || !may(actor, access.action)) throw new Refusal('not-allowed');
    await this.refuseElsewhere(request, actor, access);
    if (!isReading(request) && !hasToken(request)) throw new Refusal('token-missing');
    if (actor.behind && !isReading(request) && !this.reflector.get<boolean>(WHILE_SEEING, context.getHandler()))
      throw new Refusal('only-seeing', { name: actor.name });
    request.actor = actor;
    return true;
  }

  /**
   * What is beyond somebody's reach is as if there were none.
   * @throws Refusal not-found; fields-wrong where no number stands where one should
   */
  private async refuseElsewhere(request: Request, actor: Actor, { action, places }: RouteAccess): Promise<void> {
    if (schoolsWhere(actor.grants, action, 'held') === 'all') return;
    const named = (Object.entries(places) as [PlaceKind, string | readonly string[]][]).flatMap(([kind, where]) =>
      [where].flat().flatMap((at) => numbersAt(request, at).map((id): PlaceOf => ({ kind, id }))),
    );
    const where = await this.whereabouts.of(named);
    const beyond = named.find((_place, at) => !where[at] || !mayAt(actor, action, where[at]));
    if (beyond) throw new Refusal('not-found', { what: beyond.kind.replace('-', ' '), id: beyond.id });
  }
}

/**
 * The numbers that a request gives there, one or a list. None where its own reader refuses it: a word in the address.
 * @throws Refusal fields-wrong
 */
function numbersAt(request: Request, where: string): number[] {
  const [source, name] = where.includes('.') ? where.split('.') : ['params', where];
  const given = (request[source as 'params' | 'query' | 'body'] as Record<string, unknown> | undefined)?.[name!];
  const all: unknown[] = source === 'body' && Array.isArray(given) ? given : [given];
  if (all.every(isId)) return all.map(Number);
  if (source === 'params') return [];
  throw new Refusal('fields-wrong', {}, [{ field: name!, detail: 'a whole number' }]);
}

function isId(given: unknown): given is number | string {
  if (typeof given === 'string' ? !/^-?\d+$/.test(given) : !Number.isInteger(given)) return false;
  return Math.abs(Number(given)) <= largestId;
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
