import type { Day } from '#core/calendar';

/** A day of a section. */
export interface RegisterPlace {
  readonly sectionId: number;
  readonly day: Day;
}

/** How the log names a register. */
export const registerId = ({ sectionId, day }: RegisterPlace): string => `${sectionId}/${day}`;

export function registerPlaceOf(id: string): RegisterPlace {
  const [sectionId, day] = id.split('/');
  return { sectionId: Number(sectionId), day: day as Day };
}
