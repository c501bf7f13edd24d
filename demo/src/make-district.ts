import { emptyDistrict, type District, type GradeRow } from './district.js';
import { drawAttendance } from './draw-attendance.js';
import { drawExams } from './draw-exams.js';
import { drawGrades, fileSections, openPeriodId, platformSections } from './draw-grades.js';
import { drawPeople } from './draw-people.js';
import { drawScores, type CalculatedPercents } from './draw-scores.js';
import { drawSections } from './draw-sections.js';
import { drawSignOffs, stockComments } from './draw-sign-offs.js';
import { plantBookFaults, plantFaults, type PlantedFault } from './plant-faults.js';
import { plantPeople } from './plant-people.js';
import { platformFiles, type PlatformFile } from './platform-files.js';
import { writePolicies } from './policies.js';
import { createRandom } from './random.js';
import { demoNow, schoolPlans } from './schools.js';
import { drawSpindleRock } from './spindle-rock/draw-spindle-rock.js';
import { plantInSpindleRock } from './spindle-rock/plant-in-spindle-rock.js';
import { spindleRock } from './spindle-rock/spindle-rock.js';
import { writeSetUp } from './write-set-up.js';

export interface Demo {
  readonly district: District;
  readonly plantedFaults: readonly PlantedFault[];
  /** What looks like a fault of a rule and is right. */
  readonly decoys: readonly PlantedFault[];
  /** Grades that were changed in the database itself after their period was sealed, as no application lets anybody do. */
  readonly driftedGrades: readonly Pick<GradeRow, 'enrollmentId' | 'itemId' | 'periodId' | 'percent' | 'label'>[];
  readonly files: readonly PlatformFile[];
  /** What enrollments' scores come to, by "enrollment/period". */
  readonly percents: CalculatedPercents;
  /** Grade books that a learning platform keeps and Wombat does not. */
  readonly elsewhere: Pick<District, 'assignments' | 'scores'>;
}

const seed = 20_260_121;

/** The district of Port Elowen, an invented island, the same at every call. */
export function makeDistrict(): Demo {
  const random = createRandom(seed);
  const district = emptyDistrict();
  writeSetUp(district);
  const people = drawPeople(district, random);
  drawSections(district, people, random);
  giveTeacher(district, people.teachers.get(1)![0]!);
  writePolicies(district);
  const percents = drawScores(district, people, random);
  drawGrades(district, percents, random);
  leaveOneWithdrawn(district);
  const plantedFaults = plantFaults(district, random);
  drawExams(district, percents, createRandom(seed + 1));
  const elsewhere = keepBooks(district, percents);
  plantedFaults.push(...plantBookFaults(district));
  plantPeople(district);
  drawSignOffs(district, createRandom(seed + 2));
  drawAttendance(district, createRandom(seed + 3));
  const planted = plantInSpindleRock(district, drawSpindleRock(district, createRandom(seed + 4)));
  plantedFaults.push(...planted.plantedFaults);
  for (const { id: schoolId } of [...schoolPlans, spindleRock])
    district.stockComments.push(...stockComments.map((text, at) => ({ schoolId, position: at + 1, text })));
  const { decoys, driftedGrades } = planted;
  return {
    district,
    plantedFaults,
    decoys,
    driftedGrades,
    files: platformFiles(district, percents),
    percents,
    elsewhere,
  };
}

/** Takes out the grade books that a platform keeps; of the others Wombat holds what they come to. */
function keepBooks(district: District, percents: CalculatedPercents): Demo['elsewhere'] {
  const onPlatform = platformSections(district);
  const isElsewhere = (sectionId: number, periodId: number) => periodId === openPeriodId && onPlatform.has(sectionId);
  const gone = new Set(
    district.assignments.filter(({ sectionId, periodId }) => isElsewhere(sectionId, periodId)).map(({ id }) => id),
  );
  const elsewhere = {
    assignments: district.assignments.filter(({ id }) => gone.has(id)),
    scores: district.scores.filter(({ assignmentId }) => gone.has(assignmentId)),
  };
  district.assignments = district.assignments.filter(({ id }) => !gone.has(id));
  district.scores = district.scores.filter(({ assignmentId }) => !gone.has(assignmentId));
  const sectionOf = new Map(district.enrollments.map(({ id, sectionId }) => [id, sectionId]));
  for (const [key, percent] of percents) {
    const [enrollmentId, periodId] = key.split('/').map(Number) as [number, number];
    if (isElsewhere(sectionOf.get(enrollmentId)!, periodId)) continue;
    district.calculatedGrades.push({ enrollmentId, periodId, percent, blockedBy: [], calculatedAt: new Date(demoNow) });
  }
  return elsewhere;
}

/** The teacher of the demo has a section that still waits for its file. */
function giveTeacher({ sections, ...rest }: District, teacherId: number): void {
  const [first] = fileSections({ sections, ...rest });
  sections[sections.indexOf(first!)] = { ...first!, teacherId };
}

/** One student of the section with the faulty file has left, so that the file holds one of those too. */
function leaveOneWithdrawn(district: District): void {
  const boats = fileSections(district)[2]!;
  const last = district.enrollments.findLast(({ sectionId }) => sectionId === boats.id)!;
  last.withdrawnOn = '2025-12-05';
}

export { openPeriodId };
