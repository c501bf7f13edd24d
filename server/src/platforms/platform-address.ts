import { lookup } from 'node:dns/promises';
import { BlockList, isIP } from 'node:net';

/** Addresses at which no platform is, though something else may answer: of the machine's own network, of no machine, of many. */
const forbidden = new BlockList();
forbidden.addSubnet('0.0.0.0', 8, 'ipv4');
forbidden.addSubnet('169.254.0.0', 16, 'ipv4');
forbidden.addSubnet('224.0.0.0', 3, 'ipv4');
forbidden.addAddress('::', 'ipv6');
forbidden.addSubnet('fe80::', 10, 'ipv6');
forbidden.addSubnet('ff00::', 8, 'ipv6');
forbidden.addAddress('fd00:ec2::254', 'ipv6'); // where machines of a cloud are told their secrets

/** Whether a platform may be asked at this host, by all addresses that its name has; true where the name has none. */
export async function mayBeAsked({ hostname }: URL): Promise<boolean> {
  const host = hostname.replace(/^\[|\]$/g, '');
  const addresses = isIP(host) ? [host] : await addressesOf(host);
  return addresses.every((address) => !forbidden.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4'));
}

async function addressesOf(name: string): Promise<string[]> {
  try {
    return (await lookup(name, { all: true })).map(({ address }) => address);
  } catch {
    return []; // the request itself will say so
  }
}

/** A path of the interfaces that a platform has, beneath the address that it is connected by. */
export function pathOn(address: string, path: string): URL {
  const url = new URL(address);
  url.pathname = url.pathname.replace(/\/+$/, '') + path;
  url.search = '';
  return url;
}

/**
 * What a platform names in an answer, a whole address or a path: its path and query, but always of the platform itself,
 * whatever else the text says. Null where it is no address.
 */
export function namedBy(address: string, text: string): URL | null {
  if (!URL.canParse(text, address)) return null;
  const { pathname, search } = new URL(text, address);
  const url = new URL(address);
  url.pathname = pathname;
  url.search = search;
  return url;
}
