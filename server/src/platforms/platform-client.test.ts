import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { PlatformClient } from './platform-client.js';

/* Against a platform of the test's own, which answers as it is told to. */

type Answer = (request: IncomingMessage, response: ServerResponse) => void;

const running: Server[] = [];
afterEach(() => {
  for (const server of running.splice(0)) {
    server.closeAllConnections();
    server.close();
  }
});

/** Listens until the test ends. @returns its address, and the paths it was asked for */
async function listen(answer: Answer): Promise<{ address: string; asked: string[] }> {
  const asked: string[] = [];
  const server = createServer((request, response) => {
    asked.push(request.url!);
    answer(request, response);
  });
  running.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, asked };
}

const json = (response: ServerResponse, body: unknown, headers: Record<string, string> = {}) =>
  response.writeHead(200, { 'content-type': 'application/json', ...headers }).end(JSON.stringify(body));

const withToken =
  (answer: Answer): Answer =>
  (request, response) =>
    request.url!.endsWith('/token') ? json(response, { access_token: 't' }) : answer(request, response);

const clientOf = (address: string) =>
  new PlatformClient(
    { name: 'Quillpond', address, clientId: 'wombat', clientSecret: 'a b&c' },
    AbortSignal.timeout(60_000),
  );
const users = (address: string) => clientOf(address).list('/users', 'users', ({ id }) => id);

describe('a token', () => {
  const basic = `Basic ${Buffer.from('wombat:a+b%26c').toString('base64')}`;
  const tokenAt = (isRight: (request: IncomingMessage, body: string) => boolean): Answer => {
    return (request, response) => {
      if (request.url !== '/token') return json(response, { users: [] });
      let body = '';
      request.on('data', (piece) => (body += piece));
      request.on('end', () =>
        isRight(request, body) ? json(response, { access_token: 't' }) : response.writeHead(401).end(),
      );
    };
  };

  it('is asked for with id and secret in the header, as every server has to take them', async () => {
    const { address } = await listen(
      tokenAt(({ headers }, body) => headers.authorization === basic && !body.includes('secret')),
    );
    expect(await users(address)).toEqual([]);
  });

  it('or in the body, where a server takes them only there', async () => {
    const { address } = await listen(
      tokenAt((_request, body) => body.includes('client_id=wombat&client_secret=a+b%26c')),
    );
    expect(await users(address)).toEqual([]);
  });

  it('that is refused says so; whatever else answers, or nothing, is told in the same words', async () => {
    const says = async (answer: Answer) => {
      const { address } = await listen(answer);
      return users(address).catch(({ message }: Error) => message.replace(address, 'X'));
    };
    expect(await says(tokenAt(() => false))).toBe('Quillpond does not accept the client id with this secret.');
    const same = 'Quillpond gives no token at X/token. Is the address right, and is the platform running?';
    expect(await says((_request, response) => response.writeHead(404).end())).toBe(same);
    expect(await says((_request, response) => json(response, { secrets: 'of another service' }))).toBe(same);
    expect(await says((request) => request.socket.destroy())).toBe(same);
  });
});

describe('what a platform answers', () => {
  it('is asked for beneath the path of its address', async () => {
    const { address, asked } = await listen(withToken((_request, response) => json(response, { users: [] })));
    await users(`${address}/district/api/`);
    expect(asked).toEqual(['/district/api/token', '/district/api/users']);
  });

  it('goes on with the page that it names, on the platform itself, whatever host it names', async () => {
    const other = await listen((_request, response) => json(response, { users: [{ id: 'stolen' }] }));
    const { host } = new URL(other.address);
    const pages = [`http://x//${host}/latest`, `//${host}/latest?page=3`, `${other.address}/latest?page=4`];
    const { address, asked } = await listen(
      withToken((_request, response) => {
        const link = pages[asked.length - 2];
        json(response, { users: [{ id: asked.length }] }, link ? { link: `<${link}>; rel="next"` } : {});
      }),
    );
    expect(await users(address)).toHaveLength(4);
    expect(asked.slice(1)).toEqual(['/users', `//${host}/latest`, '/latest?page=3', '/latest?page=4']);
    expect(other.asked).toEqual([]);
  });

  it('keeps the query of a column’s address when its results are asked for', async () => {
    const { address, asked } = await listen(withToken((_request, response) => json(response, [])));
    await clientOf(address).listBeneath('https://lms.example/lti/items/7?of=a', '/results', ({ userId }) => userId);
    expect(asked.at(-1)).toBe('/lti/items/7/results?of=a');
  });

  it('ends at 64 MB, though it says nothing of its length and never stops', async () => {
    let sent = 0;
    let isLeft = false;
    const { address } = await listen(
      withToken((_request, response) => {
        response.writeHead(200, { 'content-type': 'application/json' }).write('{"users":[');
        const more = () => {
          while (!response.destroyed && response.write(`"${'x'.repeat(65_536)}",`)) sent += 65_536;
        };
        response.on('drain', more).on('close', () => (isLeft = true));
        more();
      }),
    );
    await expect(users(address)).rejects.toThrow('Quillpond sends more than 64 MB at /users.');
    await expect.poll(() => isLeft).toBe(true);
    expect(sent).toBeLessThan(100 * 1024 * 1024);
  });

  it('ends at 256 MB where it goes on page after page', async () => {
    const padding = 'x'.repeat(30 * 1024 * 1024);
    const { address, asked } = await listen(
      withToken((_request, response) =>
        json(response, { users: [{ id: asked.length, padding }] }, { link: '</users>; rel="next"' }),
      ),
    );
    await expect(users(address)).rejects.toThrow('Quillpond sends more than 256 MB at /users.');
  });

  it.each([
    ['nothing', null],
    ['no list', { users: 'all' }],
    ['a list of no things', { users: [null] }],
    ['a list of lists', { users: [[]] }],
  ])('is refused in words where it is %s', async (_what, body) => {
    const { address } = await listen(withToken((_request, response) => json(response, body)));
    await expect(users(address)).rejects.toThrow('Quillpond sends no list "users" of things at /users.');
  });

  it('is not asked for where no platform can be', async () => {
    await expect(users('http://169.254.169.254')).rejects.toThrow(
      'http://169.254.169.254 is no address at which a learning platform can be.',
    );
  });
});
