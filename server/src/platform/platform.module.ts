import { Global, Module, type DynamicModule } from '@nestjs/common';
import { Clock } from './clock/clock.js';
import type { OpenDatabase } from './database/open-database.js';
import { DATABASE, Transactions } from './database/transactions.js';

/** What every domain stands on: the database and the clock. */
@Global()
@Module({})
export class PlatformModule {
  static on(database: OpenDatabase, clock: Clock): DynamicModule {
    return {
      module: PlatformModule,
      providers: [{ provide: DATABASE, useValue: database }, { provide: Clock, useValue: clock }, Transactions],
      exports: [DATABASE, Clock, Transactions],
    };
  }
}
