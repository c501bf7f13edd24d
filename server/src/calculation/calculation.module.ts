import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { CalendarModule } from '#server/calendar';
import { ChangesModule } from '#server/changes';
import { ReportItemsModule } from '#server/report-items';
import { AssignmentChecks } from './assignment-checks.service.js';
import { AssignmentThing } from './assignment.thing.js';
import { BookAccess } from './book-access.service.js';
import { ScoreThing } from './score.thing.js';
import { BookCalculator } from './book-calculator.js';
import { BookSectionsRepository } from './book-sections.repository.js';
import { BooksRepository } from './books.repository.js';
import { BooksService } from './books.service.js';
import { CalculatedGradesRepository } from './calculated-grades.repository.js';
import { CalculationController, GradeBooksController } from './calculation.controller.js';
import { CategoriesRepository } from './categories.repository.js';
import { CategoriesService } from './categories.service.js';
import { CategoriesThing } from './categories.thing.js';
import { DifferingGrades } from './differing-grades.service.js';
import { PolicyFaults } from './policy-faults.service.js';
import { PolicyThing } from './policy.thing.js';
import { SavePolicyService } from './save-policy.service.js';
import { PoliciesService } from './policies.service.js';
import { PolicyEffectService } from './policy-effect.service.js';
import { RecalculationService } from './recalculation.service.js';
import { SaveBookService } from './save-book.service.js';

@Module({
  imports: [PeriodViewModule, CalendarModule, ChangesModule, ReportItemsModule],
  controllers: [CalculationController, GradeBooksController],
  providers: [
    AssignmentChecks,
    AssignmentThing,
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
