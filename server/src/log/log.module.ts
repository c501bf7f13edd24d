import { Module } from '@nestjs/common';
import { ChangeLog } from './change-log.js';
import { LogController } from './log.controller.js';
import { LogService } from './log.service.js';

@Module({ controllers: [LogController], providers: [ChangeLog, LogService], exports: [ChangeLog] })
export class LogModule {}
