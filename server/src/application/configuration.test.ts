import { describe, expect, it } from 'vitest';
import { readConfigurationOrThrow } from './configuration.js';

describe('what the environment says', () => {
  it.each([
    ['nothing', {}, { port: 4600, pauseMinutes: 120, database: { kind: 'folder' } }],
    ['a port and a folder', { PORT: '0', WOMBAT_DATA: '/a' }, { port: 0, database: { kind: 'folder', folder: '/a' } }],
    ['a database server', { DATABASE_URL: 'postgres://b' }, { database: { kind: 'server', url: 'postgres://b' } }],
    ['the shortest session', { WOMBAT_SESSION_MINUTES: '5' }, { pauseMinutes: 5 }],
    ['the longest session', { WOMBAT_SESSION_MINUTES: '1440' }, { pauseMinutes: 1440 }],
  ])('%s', (_says, environment, configuration) => {
    expect(readConfigurationOrThrow(environment)).toMatchObject(configuration);
  });

  it.each([
    [{ PORT: '65536' }, 'PORT is "65536"; it must be a number from 0 to 65535'],
    [{ PORT: 'http' }, 'PORT is "http"; it must be a number from 0 to 65535'],
    [{ WOMBAT_SESSION_MINUTES: '4' }, 'WOMBAT_SESSION_MINUTES is "4"; it must be a number from 5 to 1440'],
    [{ WOMBAT_SESSION_MINUTES: '' }, 'WOMBAT_SESSION_MINUTES is ""; it must be a number from 5 to 1440'],
    [{ WOMBAT_SESSION_MINUTES: '2h' }, 'WOMBAT_SESSION_MINUTES is "2h"; it must be a number from 5 to 1440'],
  ])('%j is refused', (environment, fault) => {
    expect(() => readConfigurationOrThrow(environment)).toThrow(new RangeError(fault));
  });
});
