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
import { Allow, CurrentActor, everyone, registrars, type Actor } from '#server/platform';
import { RunLettersService } from './run-letters.service.js';
import { RunsService } from './runs.service.js';

@Controller('runs')
@Allow(registrars)
export class RunsController {
  constructor(
    private readonly runs: RunsService,
    private readonly letters: RunLettersService,
  ) {}

  @Get()
  ofSchool(@Query('school', ParseIntPipe) schoolId: number): Promise<RunsReply> {
    return this.runs.ofSchool(schoolId);
  }

  /** As it stands beside a section's grades, for whoever works there. */
  @Get('last')
  @Allow(everyone)
  async lastOfSection(
    @CurrentActor() actor: Actor,
    @Query('section', ParseIntPipe) sectionId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<{ last: LastRunReply | null }> {
    return { last: await this.runs.lastOfSection(actor, sectionId, periodId) };
  }

  @Post()
  @HttpCode(202)
  plan(@CurrentActor() actor: Actor, @Body() request: PlanRunRequest): Promise<RunReply> {
    return this.runs.plan(actor, request);
  }

  @Get(':id')
  byId(@Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.byId(id);
  }

  @Get(':id/rows')
  rows(@Param('id', ParseIntPipe) id: number, @Query() query: RunRowsQuery): Promise<RunRowsReply> {
    return this.runs.rows(id, query);
  }

  @Put(':id/picks')
  pick(@Param('id', ParseIntPipe) id: number, @Body() request: PickRequest): Promise<RunReply> {
    return this.runs.pick(id, request);
  }

  @Post(':id/carry-out')
  @HttpCode(202)
  carryOut(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.carryOut(actor, id);
  }

  @Post(':id/resume')
  @HttpCode(202)
  resume(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.resume(actor, id);
  }

  @Post(':id/stop')
  @HttpCode(200)
  stop(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.stop(actor, id);
  }

  @Post(':id/undo')
  @HttpCode(202)
  undo(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunReply> {
    return this.runs.undo(actor, id);
  }

  /** Letters to the teachers who have something to mend, as they would be written. */
  @Get(':id/letters')
  lettersOf(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunLetterReply[]> {
    return this.letters.preview(actor, id);
  }

  @Post(':id/letters')
  writeLetters(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<RunLetterReply[]> {
    return this.letters.write(actor, id);
  }

  @Delete(':id')
  @HttpCode(204)
  discard(@CurrentActor() actor: Actor, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.runs.discard(actor, id);
  }

  @Put('of-platform/:id/nightly')
  setNightly(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() request: NightlyRequest,
  ): Promise<RunsReply> {
    return this.runs.setNightly(actor, id, request);
  }

  @Put('of-platform/:id/default-category')
  setDefaultCategory(
    @CurrentActor() actor: Actor,
    @Param('id', ParseIntPipe) id: number,
    @Body() { categoryId }: DefaultCategoryRequest,
  ): Promise<RunsReply> {
    return this.runs.setDefaultCategory(actor, id, categoryId);
  }
}
