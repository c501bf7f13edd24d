import { Module } from '@nestjs/common';
import { DiscoveryModule } from '@nestjs/core';
import { ChangeLog } from './change-log.js';
import { Changes } from './changes.service.js';
import { ChangesController } from './changes.controller.js';
import { HistoryService } from './history.service.js';
import { Things } from './things.js';

@Module({
  imports: [DiscoveryModule],
  controllers: [ChangesController],
  providers: [ChangeLog, Changes, HistoryService, Things],
  exports: [ChangeLog, Changes],
})
export class ChangesModule {}
