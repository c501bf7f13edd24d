import { Controller, Get, Query } from '@nestjs/common';
import type { LogCheckReply, LogEntryReply } from '#contract/log';
import { Allow, registrars } from '#server/platform';
import { LogService } from './log.service.js';

@Controller('log')
export class LogController {
  constructor(private readonly log: LogService) {}

  @Get('check')
  @Allow(registrars)
  check(): Promise<LogCheckReply> {
    return this.log.check();
  }

  @Get()
  @Allow(registrars)
  history(@Query('thing') thing = ''): Promise<LogEntryReply[]> {
    return this.log.historyOf(thing);
  }
}
