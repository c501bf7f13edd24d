import { Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import type { ChangeReply, LogCheckReply, LogEntryReply, UndoReply } from '#contract/changes';
import { Allow, CurrentActor, everyone, registrars, type Actor } from '#server/platform';
import { Changes } from './changes.service.js';
import { HistoryService } from './history.service.js';

@Controller()
export class ChangesController {
  constructor(
    private readonly changes: Changes,
    private readonly history: HistoryService,
  ) {}

  /** What the person who asks changed last. */
  @Get('changes/mine')
  @Allow(everyone)
  mine(@CurrentActor() actor: Actor): Promise<ChangeReply[]> {
    return this.history.changesOf(actor);
  }

  /** What was changed of one thing. */
  @Get('changes')
  @Allow(registrars)
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
  check(): Promise<LogCheckReply> {
    return this.history.check();
  }

  @Get('log')
  @Allow(registrars)
  log(@Query('thing') thing = ''): Promise<LogEntryReply[]> {
    return this.history.historyOf(thing);
  }
}
