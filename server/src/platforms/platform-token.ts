import type { PlatformAccess } from './platform-client.js';
import { pathOn } from './platform-address.js';
import { PlatformProblem } from './platform-problem.js';
import { readBody } from './read-body.js';

/** Longer than any token. */
const largestAnswer = 64 * 1024;

/**
 * A token for the client id and its secret (OAuth 2.0, RFC 6749, section 4.4). They go in the header, as every server has
 * to take them; one that refuses them there is given them in the body (section 2.3.1). Until a token is given, everything
 * but the refusal of the secret is told in the same words, so that nobody learns from them what else listens at an address.
 * @throws PlatformProblem
 */
export async function freshToken(
  access: PlatformAccess,
  send: (url: URL, init: RequestInit) => Promise<Response | string>,
): Promise<string> {
  const { name, address, clientId, clientSecret } = access;
  const url = pathOn(address, '/token');
  const grant = { grant_type: 'client_credentials' };
  const pair = `${formEncoded(clientId)}:${formEncoded(clientSecret)}`;
  const authorization = `Basic ${Buffer.from(pair).toString('base64')}`;
  let response = await send(url, { method: 'POST', headers: { authorization }, body: new URLSearchParams(grant) });
  if (refuses(response)) {
    const body = new URLSearchParams({ ...grant, client_id: clientId, client_secret: clientSecret });
    response = await send(url, { method: 'POST', body });
  }
  if (refuses(response)) throw new PlatformProblem(`${name} does not accept the client id with this secret.`);
  const token = typeof response === 'string' || !response.ok ? undefined : await tokenIn(response);
  if (token !== undefined) return token;
  throw new PlatformProblem(
    `${name} gives no token at ${url.href}. Is the address right, and is the platform running?`,
  );
}

const refuses = (response: Response | string) =>
  typeof response !== 'string' && (response.status === 400 || response.status === 401);

/** As forms write it, which RFC 6749 asks for. */
const formEncoded = (text: string) => new URLSearchParams({ text }).toString().slice('text='.length);

async function tokenIn(response: Response): Promise<string | undefined> {
  try {
    const body = JSON.parse((await readBody(response, largestAnswer)) ?? '') as { access_token?: unknown } | null;
    return typeof body?.access_token === 'string' ? body.access_token : undefined;
  } catch {
    return undefined;
  }
}
