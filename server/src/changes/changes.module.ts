import { Module } from '@nestjs/common';
import { DiscoveryModule } from '@nestjs/core';
import { ChainCheck } from './chain-check.service.js';
import { ChangeLog } from './change-log.js';
import { Changes } from './changes.service.js';
import { ChangesController } from './changes.controller.js';
import { HistoryService } from './history.service.js';
import { LogRepository } from './log.repository.js';
import { LogService } from './log.service.js';
import { Readings } from './readings.js';
import { Things } from './things.js';

@Module({
  imports: [DiscoveryModule],
  controllers: [ChangesController],
  providers: [ChainCheck, ChangeLog, Changes, HistoryService, LogRepository, LogService, Readings, Things],
  exports: [ChangeLog, Changes, Readings],
})
export class ChangesModule {}
