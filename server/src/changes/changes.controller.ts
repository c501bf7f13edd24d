import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { LogRequest, type ChangeReply, type LogCheckReply, type LogReply, type UndoReply } from '#contract/changes';
import { Allow, csvLines, CurrentActor, everyone, registrars, spreadsheetTypes, type Actor } from '#server/platform';
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
  @Allow(everyone)
  mine(@CurrentActor() actor: Actor): Promise<ChangeReply[]> {
    return this.history.changesOf(actor);
  }

  /** What was changed of one thing. */
  @Get('changes')
  @Allow(everyone)
  ofThing(@CurrentActor() actor: Actor, @Query('thing') thing = ''): Promise<ChangeReply[]> {
    return this.history.changesOfThing(actor, thing);
  }

  @Post('changes/:id/undo')
  @HttpCode(200)
  @Allow(everyone)
  undo(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<UndoReply> {
    return this.changes.undo(actor, id);
  }

  @Get('log/check')
  @Allow(registrars)
  progress(): LogCheckReply {
    return this.chain.progress();
  }

  @Post('log/check')
  @HttpCode(200)
  @Allow(registrars)
  check(): LogCheckReply {
    return this.chain.start();
  }

  @Get('log/export')
  @Allow(registrars)
  async export(@Query() filter: LogRequest, @Res() response: Response): Promise<void> {
    response.setHeader('content-type', spreadsheetTypes.csv);
    response.setHeader('content-disposition', 'attachment; filename="log.csv"');
    await pipeline(Readable.from(csvLines(this.log.rows(filter))), response);
  }

  @Get('log')
  @Allow(registrars)
  page(@Query() { before, ...filter }: LogRequest): Promise<LogReply> {
    return this.log.page(filter, before);
  }
}
