import { RequestMethod, type INestApplicationContext } from '@nestjs/common';
import { DiscoveryService, MetadataScanner, Reflector } from '@nestjs/core';
import { accessMatrix, actions, roleNames, roles, type ActionFacts } from '#core/access';
import { ACCESS, type RouteAccess } from '../src/platform/auth/access.js';

/** A route as its controller declares it. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** "/schools/:schoolId/people". */
  readonly path: string;
  /** Undefined where nothing says whom it lets through. */
  readonly access: RouteAccess | 'public' | undefined;
}

/** Every route of the server, by its address. */
export function routesOf(application: INestApplicationContext): Route[] {
  const [discovery, scanner, reflector] = [DiscoveryService, MetadataScanner, Reflector].map((one) =>
    application.get(one as never, { strict: false }),
  ) as [DiscoveryService, MetadataScanner, Reflector];
  const routes = discovery.getControllers().flatMap(({ instance, metatype }) => {
    const root = reflector.get<string>('path', metatype as never);
    const prototype = Object.getPrototypeOf(instance) as Record<string, () => unknown>;
    return scanner.getAllMethodNames(prototype).flatMap((name): Route[] => {
      const handler = prototype[name]!;
      const path = reflector.get<string | undefined>('path', handler);
      if (path === undefined) return [];
      const method = RequestMethod[reflector.get<RequestMethod>('method', handler)] as Route['method'];
      const access = reflector.getAllAndOverride<Route['access']>(ACCESS, [handler, metatype as never]);
      return [{ method, path: `/${root}/${path}`.replaceAll(/\/+/g, '/').replace(/(.)\/$/, '$1'), access }];
    });
  });
  return routes.toSorted((a, b) => (`${a.path} ${a.method}` < `${b.path} ${b.method}` ? -1 : 1));
}

const cells = { held: 'yes', own: 'own sections', none: '–' } as const;
const where = { self: '', section: 'a section', school: 'a school', district: 'all schools' } as const;

/** docs/access.md: the table of who may do what, and the routes of each action. */
export function accessDocument(routes: readonly Route[]): string {
  const rows = actions.map((action) => {
    const { means, concerns, allows }: ActionFacts = accessMatrix[action];
    return [action, means, where[concerns], ...roles.map((role) => cells[allows[role] ?? 'none'])];
  });
  const table = [['action', 'what it is', 'concerns', ...roles.map((role) => roleNames[role])], ...rows];
  const lines = table.map((row) => `| ${row.join(' | ')} |`);
  lines.splice(1, 0, `|${' --- |'.repeat(table[0]!.length)}`);
  const listed = actions.map((action) => {
    const own = routes.filter(({ access }) => typeof access === 'object' && access.action === action);
    return [`### ${action}`, '', ...own.map(({ method, path }) => `- \`${method} ${path}\``), ''].join('\n');
  });
  const open = routes.filter(({ access }) => access === 'public').map(({ method, path }) => `- \`${method} ${path}\``);
  return `# Who may do what

Made from the table in \`core/src/access/access-matrix.ts\`, from which the routes and the interface take it too; a test holds the
three together.

A role is held at one school, or for the whole district, and somebody may hold several. **yes** reaches everything of the schools
where the role is held; **own sections** only the sections that somebody teaches there. What concerns all schools is within reach
only of a role for the whole district. What is beyond somebody's reach is answered as what there is not.

${lines.join('\n')}

## Routes

${listed.join('\n')}
### without signing in

${open.join('\n')}
`;
}
