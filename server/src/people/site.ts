import type { Request } from 'express';

/** Where Wombat is, as the browser that asks says: behind a proxy on this machine, as the proxy says. */
export interface Site {
  /** Such as wombat.school.example. */
  readonly host: string;
  /** Such as https://wombat.school.example. */
  readonly origin: string;
}

export function siteOf({ hostname, protocol, host }: Request): Site {
  return { host: hostname, origin: `${protocol}://${host}` };
}
