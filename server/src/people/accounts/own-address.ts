import { Injectable } from '@nestjs/common';
import { Settings, type Queries } from '#server/platform';

const key = 'own-address';
const loopback = /^https?:\/\/(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/**
 * Where people find Wombat. Who asks for a link says where it would lead, and may be anybody: a link is written only to where a
 * registrar was as they sent links, or to the machine itself.
 */
@Injectable()
export class OwnAddress {
  constructor(private readonly settings: Settings) {}

  async keep(queries: Queries, origin: string): Promise<void> {
    if ((await this.settings.value(queries, key)) !== origin) await this.settings.put(queries, key, origin);
  }

  /** @param asked where who asks says that it is; undefined where that is nothing to be trusted */
  async of(queries: Queries, asked: string): Promise<string | undefined> {
    const kept = await this.settings.value(queries, key);
    if (typeof kept === 'string' && !loopback.test(kept)) return kept;
    return loopback.test(asked) ? asked : typeof kept === 'string' ? kept : undefined;
  }
}
