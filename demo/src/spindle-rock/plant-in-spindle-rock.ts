import type { District } from '../district.js';
import type { Demo } from '../make-district.js';
import type { DrawnRock } from './draw-spindle-rock.js';
import { plantByHand } from './plant-by-hand.js';
import { plantDecoysInGrades, plantDecoysInSeats, plantDecoysInSetUp } from './plant-decoys.js';
import { plantInGrades } from './plant-in-grades.js';
import { plantInSeats } from './plant-in-seats.js';
import { plantInSetUp } from './plant-in-set-up.js';
import { beginPlanting } from './planting.js';
import { signOffAll } from './sign-off-all.js';

/** Puts faults of each kind that records can have into the second term of the school, and beside them what is right. */
export function plantInSpindleRock(
  district: District,
  rock: DrawnRock,
): Pick<Demo, 'plantedFaults' | 'decoys' | 'driftedGrades'> {
  const planting = beginPlanting(district, rock);
  plantInSetUp(planting);
  plantInGrades(planting);
  plantByHand(planting);
  const driftedGrades = plantInSeats(planting);
  plantDecoysInSetUp(planting);
  plantDecoysInGrades(planting);
  plantDecoysInSeats(planting);
  signOffAll(planting);
  return { plantedFaults: planting.faults, decoys: planting.decoys, driftedGrades };
}
