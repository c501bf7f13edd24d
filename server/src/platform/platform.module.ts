import { Global, Module, type DynamicModule } from '@nestjs/common';
import { Actors } from './auth/actors.js';
import { Whereabouts } from './auth/whereabouts.js';
import { Clock } from './clock/clock.js';
import { DistrictZone } from './clock/district-zone.js';
import type { OpenDatabase } from './database/open-database.js';
import { Bulk } from './database/bulk.js';
import { CopyReader } from './database/copy-reader.js';
import { DATABASE, Transactions } from './database/transactions.js';
import { Outbox } from './mail/outbox.js';
import { SecretBox } from './secrets/secret-box.js';
import { Settings } from './settings/settings.js';
import { ThreadPool } from './work/thread-pool.js';
import { WorkQueue } from './work/work-queue.js';

/** What every domain stands on: the database and the clock. */
@Global()
@Module({})
export class PlatformModule {
  static on(database: OpenDatabase, clock: Clock): DynamicModule {
    return {
      module: PlatformModule,
      providers: [
        { provide: DATABASE, useValue: database },
        { provide: Clock, useValue: clock },
        Actors,
        Bulk,
        CopyReader,
        DistrictZone,
        Outbox,
        SecretBox,
        Settings,
        Transactions,
        ThreadPool,
        Whereabouts,
        WorkQueue,
      ],
      exports: [
        Actors,
        Bulk,
        DATABASE,
        Clock,
        CopyReader,
        DistrictZone,
        Outbox,
        SecretBox,
        Settings,
        ThreadPool,
        Transactions,
        Whereabouts,
        WorkQueue,
      ],
    };
  }
}
