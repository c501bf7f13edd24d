import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { largestId } from '#contract/requests';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

/*
 * Every operation that the server describes of itself is sent what it should be sent, and then the same with one field as
 * nobody would fill it in. What cannot be done is refused in words: nothing of it may be a fault of the server.
 */

interface Schema {
  readonly $ref?: string;
  readonly type?: string;
  readonly enum?: readonly unknown[];
  readonly pattern?: string;
  readonly minimum?: number;
  readonly items?: Schema;
  readonly properties?: Readonly<Record<string, Schema>>;
}

interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string; readonly required?: boolean }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}

interface Described {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
}

type Path = readonly (string | number)[];

let server: TestServer;
let registrar: TestClient;
let described: Described;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  ({ body: described } = await server.nobody.get<Described>('/openapi.json'));
});
afterAll(() => server.stop());

function resolved(schema: Schema): Schema {
  return schema.$ref ? described.components.schemas[schema.$ref.split('/').at(-1)!]! : schema;
}

/** Something that the rules of a field may well let through. */
function plausible(given: Schema): unknown {
  const { type, enum: choices, pattern, minimum, items, properties } = resolved(given);
  if (choices) return choices[0];
  if (properties) return Object.fromEntries(Object.entries(properties).map(([name, each]) => [name, plausible(each)]));
  if (type === 'array') return [plausible(items ?? {})];
  if (type === 'integer' || type === 'number') return Math.max(1, minimum ?? 1);
  if (type === 'boolean') return true;
  if (pattern?.includes('\\d{4}-')) return '2026-01-16';
  return pattern ? '8' : 'text';
}

/** Paths of everything within a body, itself not among them. */
function pathsIn(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [path];
  const inner = Array.isArray(value) ? value.map((each, at) => [at, each] as const) : Object.entries(value);
  return [...(path.length > 0 ? [path] : []), ...inner.flatMap(([key, each]) => pathsIn(each, [...path, key]))];
}

function withValue(body: unknown, [key, ...rest]: Path, value: unknown): unknown {
  if (key === undefined) return value;
  const copy = Array.isArray(body) ? [...(body as unknown[])] : { ...(body as object) };
  Object.assign(copy, { [key]: withValue((body as Record<string, unknown>)[key], rest, value) });
  return copy;
}

const deep = JSON.parse('['.repeat(200) + ']'.repeat(200)) as unknown;
const nasty: readonly unknown[] = [
  null,
  [],
  {},
  [[]],
  -1,
  0,
  999_999,
  largestId + 1,
  1e300,
  '',
  '2026-02-31',
  '9999-12-31',
  'NUL \0',
  'half \ud83c',
  '٣',
  'x'.repeat(20_000),
  deep,
];

/** Every fifth, others each time, as all of them would take minutes. */
let turn = 0;
function someOf(values: readonly unknown[]): readonly unknown[] {
  turn += 1;
  return values.filter((_value, at) => (at + turn) % 5 === 0);
}

interface Asked {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly operation: Operation;
}

/** Those that read first, those that remove last, so that there is something left to ask for. */
function operations(): Asked[] {
  const order = ['GET', 'PUT', 'POST', 'DELETE'];
  return Object.entries(described.paths)
    .flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({
        method: method.toUpperCase() as Asked['method'],
        path: path.replace('/api', ''),
        operation,
      })),
    )
    .filter(({ method, path }) => !(method === 'DELETE' && path === '/session'))
    .toSorted((a, b) => order.indexOf(a.method) - order.indexOf(b.method));
}

/** An address with its numbers, one of them as given. */
function addressOf({ path, operation }: Asked, name?: string, value = ''): string {
  const query = (operation.parameters ?? []).filter((each) => each.in === 'query');
  const filled = path.replace(/\{(\w+)\}/g, (_all, each: string) => (each === name ? value : '1'));
  const asked = query
    .filter((each) => each.required || each.name === name)
    .map((each) => (each.name === name ? value : each.name === 'period' ? 'period=4' : `${each.name}=1`));
  return asked.length > 0 ? `${filled}?${asked.join('&')}` : filled;
}

const bodyOf = ({ operation }: Asked) => operation.requestBody?.content['application/json']?.schema;

/** What was answered with a fault of the server. */
async function faultsOf(requests: Iterable<readonly [asked: Asked, address: string, body?: unknown]>) {
  const faults: string[] = [];
  for (const [{ method }, address, body] of requests) {
    const { status } =
      method === 'GET' ? await registrar.get(address) : await registrar.send(method, address, body as object);
    if (status >= 500) faults.push(`${status} ${method} ${address} ${JSON.stringify(body)?.slice(0, 300)}`);
  }
  return faults;
}

describe('no request is answered with a fault of the server', () => {
  it('whatever number or text its address has, and however often', async () => {
    const values = ['-1', '999999', String(largestId + 1), 'abc', '%00', '%ED%A0%80'];
    const requests = operations().flatMap((asked) =>
      (asked.operation.parameters ?? []).flatMap(({ name, in: where }) => {
        const given = where === 'query' ? values.map((value) => `${name}=${value}`) : values;
        const doubled = where === 'query' ? [`${name}=1&${name}=2`, `${name}[a]=1`] : [];
        return [...given, ...doubled].map((value) => [asked, addressOf(asked, name, value), {}] as const);
      }),
    );
    expect(requests.length).toBeGreaterThan(500);
    expect(await faultsOf(requests)).toEqual([]);
  });

  it('whatever one of its fields holds', async () => {
    function* requests() {
      for (const asked of operations()) {
        const schema = bodyOf(asked);
        if (!schema) continue;
        const good = plausible(schema);
        yield [asked, addressOf(asked), good] as const;
        for (const path of pathsIn(good))
          for (const value of someOf(nasty)) yield [asked, addressOf(asked), withValue(good, path, value)] as const;
      }
    }
    expect(await faultsOf(requests())).toEqual([]);
  });
});
