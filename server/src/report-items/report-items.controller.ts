import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import {
  ItemRulesBody,
  NewItemRequest,
  OrderItemsRequest,
  SaveAssignmentRequest,
  SaveItemRequest,
  type AssignmentPreviewReply,
  type ReportItemsReply,
} from '#contract/report-items';
import { CurrentActor, type Actor, May } from '#server/platform';
import { ReportItemsService } from './report-items.service.js';

@Controller()
export class ReportItemsController {
  constructor(private readonly reportItems: ReportItemsService) {}

  @Get('schools/:schoolId/report-items')
  @May('read-set-up', { school: 'schoolId', period: 'query.period' })
  ofSchool(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<ReportItemsReply> {
    return this.reportItems.ofSchool(schoolId, periodId);
  }

  @Post('schools/:schoolId/report-items')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  add(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: NewItemRequest,
  ): Promise<ReportItemsReply> {
    return this.reportItems.add(actor, schoolId, periodId, request);
  }

  @Put('schools/:schoolId/report-items/order')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  order(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: OrderItemsRequest,
  ): Promise<ReportItemsReply> {
    return this.reportItems.order(actor, schoolId, periodId, request);
  }

  @Post('schools/:schoolId/report-items/preview')
  @May('change-set-up', { school: 'schoolId' })
  @HttpCode(200)
  preview(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() assignment: ItemRulesBody,
  ): Promise<AssignmentPreviewReply> {
    return this.reportItems.preview(schoolId, assignment);
  }

  @Put('schools/:schoolId/report-items/assignment')
  @May('change-set-up', { school: 'schoolId', period: 'query.period' })
  saveAssignment(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: SaveAssignmentRequest,
  ): Promise<ReportItemsReply> {
    return this.reportItems.saveAssignment(actor, schoolId, periodId, request);
  }

  @Put('report-items/:itemId')
  @May('change-set-up', { 'report-item': 'itemId', period: 'query.period' })
  change(
    @CurrentActor() actor: Actor,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Query('period', ParseIntPipe) periodId: number,
    @Body() request: SaveItemRequest,
  ): Promise<ReportItemsReply> {
    return this.reportItems.change(actor, itemId, periodId, request);
  }

  @Delete('report-items/:itemId')
  @May('change-set-up', { 'report-item': 'itemId', period: 'query.period' })
  remove(
    @CurrentActor() actor: Actor,
    @Param('itemId', ParseIntPipe) itemId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<ReportItemsReply> {
    return this.reportItems.remove(actor, itemId, periodId);
  }
}
