import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { LogRequest, type ChangeReply, type LogCheckReply, type LogReply, type UndoReply } from '#contract/changes';
import { csvLines, CurrentActor, spreadsheetTypes, type Actor, May } from '#server/platform';
import { ChainCheck } from './chain-check.service.js';
import { Changes } from './changes.service.js';
import { HistoryService } from './history.service.js';
import { LogService } from './log.service.js';

@Controller()
export class ChangesController {
  constructor(
    private readonly changes: Changes,
    private readonly history: HistoryService,
    private readonly log: LogService,
    private readonly chain: ChainCheck,
  ) {}

  /** What the person who asks changed last. */
  @Get('changes/mine')
  @May('use-own-account')
  mine(@CurrentActor() actor: Actor): Promise<ChangeReply[]> {
    return this.history.changesOf(actor);
  }

  /** What was changed of one thing. */
  @Get('changes')
  @May('use-own-account')
  ofThing(@CurrentActor() actor: Actor, @Query('thing') thing = ''): Promise<ChangeReply[]> {
    return this.history.changesOfThing(actor, thing);
  }

  @Post('changes/:id/undo')
  @May('use-own-account')
  @HttpCode(200)
  undo(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<UndoReply> {
    return this.changes.undo(actor, id);
  }

  @Get('log/check')
  @May('read-log')
  progress(): LogCheckReply {
    return this.chain.progress();
  }

  @Post('log/check')
  @May('read-log')
  @HttpCode(200)
  check(): LogCheckReply {
    return this.chain.start();
  }

  @Get('log/export')
  @May('read-log')
  async export(@Query() filter: LogRequest, @Res() response: Response): Promise<void> {
    response.setHeader('content-type', spreadsheetTypes.csv);
    response.setHeader('content-disposition', 'attachment; filename="log.csv"');
    await pipeline(Readable.from(csvLines(this.log.rows(filter))), response);
  }

  @Get('log')
  @May('read-log')
  page(@Query() { before, ...filter }: LogRequest): Promise<LogReply> {
    return this.log.page(filter, before);
  }
}
