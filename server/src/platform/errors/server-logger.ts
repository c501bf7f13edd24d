import { ConsoleLogger, Injectable } from '@nestjs/common';
import { traceOf } from './trace-of.js';

/** What goes wrong, on the standard streams, where no student stands. */
@Injectable()
export class ServerLogger extends ConsoleLogger {
  constructor() {
    super({ logLevels: ['error', 'warn', 'fatal'] });
  }

  override error(message: unknown, ...rest: unknown[]): void {
    super.error(plain(message), ...rest.map(plain));
  }

  override warn(message: unknown, ...rest: unknown[]): void {
    super.warn(plain(message), ...rest.map(plain));
  }
}

const plain = (value: unknown) => (value instanceof Error ? traceOf(value) : value);
