import {
  exchangeFiles,
  exchangeVersions,
  otherFiles,
  type ExchangeFile,
  type ExchangeVersion,
} from './exchange-format.js';

export type FileMode = 'bulk' | 'delta' | 'absent';

export interface Manifest {
  readonly version: ExchangeVersion;
  /** What the manifest says of each file; "absent" where it says nothing. */
  readonly modes: Readonly<Record<ExchangeFile, FileMode>>;
  /** Files that are there and that Wombat holds nothing of. */
  readonly passedOver: readonly string[];
}

export type ReadManifest =
  | { readonly kind: 'manifest'; readonly manifest: Manifest }
  | { readonly kind: 'fault'; readonly says: string };

/**
 * Reads the rows of manifest.csv, property names and values, without its head.
 * @example readManifest([['oneroster.version', '1.1'], ['file.orgs', 'bulk']])
 */
export function readManifest(rows: readonly (readonly string[])[]): ReadManifest {
  const values = new Map(rows.map(([name = '', value = '']) => [name.trim(), value.trim()]));
  const fault = (says: string): ReadManifest => ({ kind: 'fault', says });
  const stated = values.get('oneroster.version');
  const version = exchangeVersions.find((each) => each === stated);
  if (stated === undefined) return fault('it does not say oneroster.version');
  if (!version) return fault(`oneroster.version is "${stated}"; 1.1 or 1.2 is read`);
  const format = values.get('manifest.version');
  if (format !== undefined && format !== '1.0') return fault(`manifest.version is "${format}"; it has to be 1.0`);
  const modes: Partial<Record<ExchangeFile, FileMode>> = {};
  for (const file of exchangeFiles) {
    const mode = values.get(`file.${file}`) ?? 'absent';
    if (mode !== 'bulk' && mode !== 'delta' && mode !== 'absent')
      return fault(`file.${file} is "${mode}"; it has to be absent, bulk or delta`);
    modes[file] = mode;
  }
  const passedOver = otherFiles.filter((file) => (values.get(`file.${file}`) ?? 'absent') !== 'absent');
  return { kind: 'manifest', manifest: { version, modes: modes as Record<ExchangeFile, FileMode>, passedOver } };
}
