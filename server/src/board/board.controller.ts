import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Query,
  Res,
  Sse,
  type MessageEvent,
} from '@nestjs/common';
import type { Response } from 'express';
import type { Observable } from 'rxjs';
import { RemindersRequest, type BoardReply, type BoardSchoolReply, type RemindersReply } from '#contract/board';
import { CurrentActor, May, type Actor } from '#server/platform';
import { BoardEvents } from './board-events.js';
import { BoardService } from './board.service.js';
import { RemindersService } from './reminders.service.js';

@Controller('board')
export class BoardController {
  constructor(
    private readonly board: BoardService,
    private readonly reminders: RemindersService,
    private readonly boardEvents: BoardEvents,
  ) {}

  @Get()
  @May('read-grades')
  ofPeriod(@CurrentActor() actor: Actor, @Query('period', ParseIntPipe) periodId: number): Promise<BoardReply> {
    return this.board.ofPeriod(actor, periodId);
  }

  /** How far each school is in the period that is posted there now. */
  @Get('schools')
  @May('read-findings')
  ofSchools(@CurrentActor() actor: Actor): Promise<BoardSchoolReply[]> {
    return this.board.ofSchools(actor);
  }

  /** Says each time that something on some board changed, and nothing of what: whoever looks asks again. */
  @Sse('events')
  @May('read-grades')
  events(@Res({ passthrough: true }) response: Response): Observable<MessageEvent> {
    response.setHeader('cache-control', 'no-store, no-transform'); // compressed, it would wait for more
    return this.boardEvents.stream();
  }

  @Post(':periodId/reminders')
  @May('read-outbox', { period: 'periodId' })
  @HttpCode(200)
  remind(
    @CurrentActor() actor: Actor,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: RemindersRequest,
  ): Promise<RemindersReply> {
    return this.reminders.remind(actor, periodId, request);
  }
}
