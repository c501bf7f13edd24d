import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import {
  AddAssignmentRequest,
  ChangeAssignmentRequest,
  CopyPolicyRequest,
  PreviewPolicyRequest,
  RemovePolicyRequest,
  SaveCategoriesRequest,
  SavePolicyRequest,
  SaveScoresRequest,
  type BookReply,
  type CalculationReply,
  type CategoryReply,
  type DifferingReply,
  type PolicyEffectReply,
  type RecalculationReply,
} from '#contract/calculation';
import { CurrentActor, type Actor, May } from '#server/platform';
import { BooksService } from './books/books.service.js';
import { CategoriesService } from './policies/categories.service.js';
import { PoliciesService } from './policies/policies.service.js';
import { PolicyEffectService } from './policies/policy-effect.service.js';
import { RecalculationService } from './recalculation.service.js';
import { SavePolicyService } from './policies/save-policy.service.js';
import { SaveBookService } from './books/save-book.service.js';

/** Policies and categories: the registrar's. */
@Controller()
export class CalculationController {
  constructor(
    private readonly policies: PoliciesService,
    private readonly saves: SavePolicyService,
    private readonly effects: PolicyEffectService,
    private readonly categories: CategoriesService,
    private readonly recalculation: RecalculationService,
  ) {}

  @Get('calculation')
  @May('read-set-up', { period: 'query.period' })
  inPeriod(@Query('period', ParseIntPipe) periodId: number): Promise<CalculationReply> {
    return this.policies.inPeriod(periodId);
  }

  @Get('calculation/differing')
  @May('read-set-up', { period: 'query.period' })
  differing(@Query('period', ParseIntPipe) periodId: number): Promise<DifferingReply[]> {
    return this.policies.differing(periodId);
  }

  @Put('schools/:schoolId/policies')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  async save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: SavePolicyRequest,
  ): Promise<CalculationReply> {
    await this.saves.save(actor, schoolId, request);
    return this.policies.inPeriod(periodId);
  }

  @Post('schools/:schoolId/policies/remove')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  @HttpCode(200)
  async remove(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: RemovePolicyRequest,
  ): Promise<CalculationReply> {
    await this.saves.remove(actor, schoolId, request);
    return this.policies.inPeriod(periodId);
  }

  @Post('schools/:schoolId/policies/preview')
  @May('change-set-up', { school: 'schoolId', period: 'body.inPeriodId' })
  @HttpCode(200)
  preview(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: PreviewPolicyRequest,
  ): Promise<PolicyEffectReply> {
    return this.effects.preview(schoolId, request);
  }

  @Post('sections/:sectionId/policy/copy')
  @May('change-set-up', { section: 'sectionId', period: 'query.period' })
  @HttpCode(200)
  async copy(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: CopyPolicyRequest,
  ): Promise<CalculationReply> {
    await this.saves.copy(actor, sectionId, request, periodId);
    return this.policies.inPeriod(periodId);
  }

  @Put('schools/:schoolId/categories')
  @May('change-set-up', { school: 'schoolId' })
  saveCategories(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SaveCategoriesRequest,
  ): Promise<CategoryReply[]> {
    return this.categories.save(actor, { schoolId, sectionId: null }, request);
  }

  @Put('schools/:schoolId/sections/:sectionId/categories')
  @May('change-set-up', { school: 'schoolId', section: 'sectionId' })
  saveSectionCategories(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Body() request: SaveCategoriesRequest,
  ): Promise<CategoryReply[]> {
    return this.categories.save(actor, { schoolId, sectionId }, request);
  }

  @Get('recalculation')
  @May('read-set-up')
  progress(): Promise<RecalculationReply> {
    return this.recalculation.progress();
  }

  @Post('recalculation')
  @May('change-set-up')
  @HttpCode(200)
  start(): Promise<RecalculationReply> {
    return this.recalculation.start();
  }

  @Delete('recalculation')
  @May('change-set-up')
  cancel(): Promise<RecalculationReply> {
    this.recalculation.cancel();
    return this.recalculation.progress();
  }
}

/** Grade books: read by registrar and teacher, changed by the teacher. */
@Controller('grade-books/:sectionId/:periodId')
export class GradeBooksController {
  constructor(
    private readonly books: BooksService,
    private readonly saves: SaveBookService,
  ) {}

  @Get()
  @May('read-grades', { section: 'sectionId' })
  open(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
  ): Promise<BookReply> {
    return this.books.open(actor, sectionId, periodId);
  }

  @Put('scores')
  @May('score', { section: 'sectionId' })
  saveScores(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SaveScoresRequest,
  ): Promise<BookReply> {
    return this.saves.saveScores(actor, { sectionId, periodId }, request);
  }

  @Post('assignments')
  @May('score', { section: 'sectionId' })
  addAssignment(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: AddAssignmentRequest,
  ): Promise<BookReply> {
    return this.saves.addAssignment(actor, { sectionId, periodId }, request);
  }

  @Put('assignments/:assignmentId')
  @May('score', { section: 'sectionId' })
  changeAssignment(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Param('assignmentId', ParseIntPipe) assignmentId: number,
    @Body() request: ChangeAssignmentRequest,
  ): Promise<BookReply> {
    return this.saves.changeAssignment(actor, { sectionId, periodId }, assignmentId, request);
  }

  @Delete('assignments/:assignmentId')
  @May('score', { section: 'sectionId' })
  removeAssignment(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Param('assignmentId', ParseIntPipe) assignmentId: number,
  ): Promise<BookReply> {
    return this.saves.removeAssignment(actor, { sectionId, periodId }, assignmentId);
  }
  @Put('categories')
  @May('change-categories', { section: 'sectionId' })
  saveCategories(
    @CurrentActor() actor: Actor,
    @Param('sectionId', ParseIntPipe) sectionId: number,
    @Param('periodId', ParseIntPipe) periodId: number,
    @Body() request: SaveCategoriesRequest,
  ): Promise<BookReply> {
    return this.saves.saveCategories(actor, { sectionId, periodId }, request);
  }
}
