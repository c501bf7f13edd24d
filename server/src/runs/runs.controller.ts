import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import {
  DefaultCategoryRequest,
  NightlyRequest,
  PickRequest,
  PlanRunRequest,
  RunRowsQuery,
  type LastRunReply,
  type RunLetterReply,
  type RunReply,
  type RunRowsReply,
  type RunsReply,
} from '#contract/runs';
import { CurrentActor, type Actor, May } from '#server/platform';
import { RunLettersService } from './run-letters.service.js';
import { RunsService } from './runs.service.js';

@Controller('runs')
export class RunsController {
  constructor(
    private readonly runs: RunsService,
    private readonly letters: RunLettersService,
  ) {}

  @Get()
  @May('read-map', { school: 'query.school' })
  ofSchool(@Query('school', ParseIntPipe) schoolId: number): Promise<RunsReply> {
    return this.runs.ofSchool(schoolId);
  }

  /** As it stands beside a section's grades, for whoever works there. */
  @Get('last')
  @May('read-grades', { section: 'query.section' })
  async lastOfSection(
    @Query('section', ParseIntPipe) sectionId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<{ last: LastRunReply | null }> {
    return { last: await this.runs.lastOfSection(sectionId, periodId) };
  }

  @Post()
  @May('map', { platform: 'body.platformId', period: 'body.periodId' })
  @HttpCode(202)
  plan(@CurrentActor() actor: Actor, @Body() request: PlanRunRequest): Promise<RunReply> {
    return this.runs.plan(actor, request);
  }

  @Get(':id')
  @May('read-map', { run: 'id' })
  byId(@Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.byId(id);
  }

  @Get(':id/rows')
  @May('read-map', { run: 'id' })
  rows(@Param('id', ParseIntPipe) id: number, @Query() query: RunRowsQuery): Promise<RunRowsReply> {
    return this.runs.rows(id, query);
  }

  @Put(':id/picks')
  @May('map', { run: 'id' })
  pick(@Param('id', ParseIntPipe) id: number, @Body() request: PickRequest): Promise<RunReply> {
    return this.runs.pick(id, request);
  }

  @Post(':id/carry-out')
  @May('map', { run: 'id' })
  @HttpCode(202)
  carryOut(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.carryOut(actor, id);
  }

  @Post(':id/resume')
  @May('map', { run: 'id' })
  @HttpCode(202)
  resume(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.resume(actor, id);
  }

  @Post(':id/stop')
  @May('map', { run: 'id' })
  @HttpCode(200)
  stop(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.stop(actor, id);
  }

  @Post(':id/undo')
  @May('map', { run: 'id' })
  @HttpCode(202)
  undo(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.undo(actor, id);
  }

  /** Letters to the teachers who have something to mend, as they would be written. */
  @Get(':id/letters')
  @May('read-map', { run: 'id' })
  lettersOf(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunLetterReply[]> {
    return this.letters.preview(actor, id);
  }

  @Post(':id/letters')
  @May('map', { run: 'id' })
  writeLetters(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunLetterReply[]> {
    return this.letters.write(actor, id);
  }

  @Delete(':id')
  @May('map', { run: 'id' })
  @HttpCode(204)
  discard(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.runs.discard(actor, id);
  }

  @Put('of-platform/:id/nightly')
  @May('map', { platform: 'id' })
  setNightly(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: NightlyRequest,
  ): Promise<RunsReply> {
    return this.runs.setNightly(actor, id, request);
  }

  @Put('of-platform/:id/default-category')
  @May('map', { platform: 'id' })
  setDefaultCategory(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { categoryId }: DefaultCategoryRequest,
  ): Promise<RunsReply> {
    return this.runs.setDefaultCategory(actor, id, categoryId);
  }
}
