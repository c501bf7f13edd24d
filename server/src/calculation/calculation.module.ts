import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { ReportItemsModule } from '#server/report-items';
import { AssignmentChecks } from './books/assignment-checks.service.js';
import { AssignmentThing } from './books/assignment.thing.js';
import { BookAccess } from './books/book-access.service.js';
import { BroughtAssignmentThing } from './books/brought-assignment.thing.js';
import { ScoreThing } from './books/score.thing.js';
import { BookCalculator } from './book-calculator.js';
import { BookSectionsRepository } from './books/book-sections.repository.js';
import { BooksRepository } from './books/books.repository.js';
import { BooksService } from './books/books.service.js';
import { CalculatedGradesRepository } from './calculated-grades.repository.js';
import { CalculationController, GradeBooksController } from './calculation.controller.js';
import { CategoriesRepository } from './policies/categories.repository.js';
import { CategoriesService } from './policies/categories.service.js';
import { CategoriesThing } from './policies/categories.thing.js';
import { DifferingGrades } from './policies/differing-grades.service.js';
import { PolicyFaults } from './policies/policy-faults.service.js';
import { PolicyThing } from './policies/policy.thing.js';
import { SavePolicyService } from './policies/save-policy.service.js';
import { PoliciesService } from './policies/policies.service.js';
import { PolicyEffectService } from './policies/policy-effect.service.js';
import { RecalculationService } from './recalculation.service.js';
import { SaveBookService } from './books/save-book.service.js';

@Module({
  imports: [PeriodViewModule, CalendarModule, ChangesModule, ReportItemsModule],
  controllers: [CalculationController, GradeBooksController],
  providers: [
    AssignmentChecks,
    AssignmentThing,
    BroughtAssignmentThing,
    BookAccess,
    ScoreThing,
    BookCalculator,
    BookSectionsRepository,
    BooksRepository,
    BooksService,
    CalculatedGradesRepository,
    CategoriesRepository,
    CategoriesService,
    CategoriesThing,
    DifferingGrades,
    PolicyFaults,
    PolicyThing,
    SavePolicyService,
    PoliciesService,
    PolicyEffectService,
    RecalculationService,
    SaveBookService,
  ],
  exports: [
    BookSectionsRepository,
    BooksRepository,
    CalculatedGradesRepository,
    CategoriesRepository,
    PolicyEffectService,
    PolicyFaults,
    RecalculationService,
    SavePolicyService,
  ],
})
export class CalculationModule {}
