import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { CopySetUpRequest, type CopySetUpReply } from '#contract/courses';
import type { FirstStepsReply, SetUpReply } from '#contract/set-up';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { CopySetUpService } from './copy-set-up.service.js';
import { FirstStepsService } from './first-steps.service.js';
import { SetUpService } from './set-up.service.js';

@Controller()
@Allow(registrars)
export class SetUpController {
  constructor(
    private readonly setUp: SetUpService,
    private readonly steps: FirstStepsService,
    private readonly copies: CopySetUpService,
  ) {}

  @Get('set-up-check')
  check(@Query('period', ParseIntPipe) periodId: number): Promise<SetUpReply> {
    return this.setUp.check(periodId);
  }

  @Get('schools/:schoolId/first-steps')
  firstSteps(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<FirstStepsReply> {
    return this.steps.of(schoolId, periodId);
  }

  @Post('courses/:courseId/copy/preview')
  @HttpCode(200)
  preview(
    @Param('courseId', ParseIntPipe) courseId: number,
    @Body() request: CopySetUpRequest,
  ): Promise<CopySetUpReply> {
    return this.copies.preview(courseId, request);
  }

  @Post('courses/:courseId/copy')
  @HttpCode(200)
  copy(
    @CurrentActor() actor: Actor,
    @Param('courseId', ParseIntPipe) courseId: number,
    @Body() request: CopySetUpRequest,
  ): Promise<CopySetUpReply> {
    return this.copies.copy(actor, courseId, request);
  }
}
