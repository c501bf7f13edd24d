import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import {
  RuleChoicesBody,
  SaveRuleRequest,
  type ReportItemsReply,
  type RulePreviewReply,
  type RuleReply,
} from '#contract/report-items';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { ReportItemsService } from './report-items.service.js';

@Controller()
@Allow(registrars)
export class ReportItemsController {
  constructor(private readonly reportItems: ReportItemsService) {}

  @Get('schools/:schoolId/report-items')
  ofSchool(@Param('schoolId', ParseIntPipe) schoolId: number): Promise<ReportItemsReply> {
    return this.reportItems.ofSchool(schoolId);
  }

  @Post('report-item-rules/:ruleId/preview')
  @HttpCode(200)
  preview(@Param('ruleId', ParseIntPipe) ruleId: number, @Body() choices: RuleChoicesBody): Promise<RulePreviewReply> {
    return this.reportItems.preview(ruleId, choices);
  }

  @Put('report-item-rules/:ruleId')
  change(
    @CurrentActor() actor: Actor,
    @Param('ruleId', ParseIntPipe) ruleId: number,
    @Body() request: SaveRuleRequest,
  ): Promise<RuleReply> {
    return this.reportItems.changeRule(actor, ruleId, request);
  }
}
