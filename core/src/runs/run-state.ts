/** What a run is at: it is planned, carried out, and undone if need be. */
export const runStages = ['plan', 'carry', 'undo'] as const;
export type RunStage = (typeof runStages)[number];

/** How the stage stands: somebody works on it, it is over, it could not go on, or somebody stopped it. */
export type RunState = 'working' | 'ready' | 'failed' | 'stopped';

/**
 * What became of a line that was to be written: written; left out by choice; not written as things had moved on since the
 * plan; undone again; or not undone, as somebody changed it since.
 */
export const rowResults = ['written', 'left', 'movedOn', 'undone', 'stays'] as const;
export type RowResult = (typeof rowResults)[number];

interface Standing {
  readonly stage: RunStage;
  readonly state: RunState;
}

export function isUnderWay({ state }: Standing): boolean {
  return state === 'working';
}

export function canCarryOut({ stage, state }: Standing): boolean {
  return stage === 'plan' && state === 'ready';
}

/** What stopped or failed goes on where it was. */
export function canResume({ state }: Standing): boolean {
  return state === 'failed' || state === 'stopped';
}

/** Also a run that stopped half way: what it wrote is taken back. */
export function canUndo({ stage, state }: Standing): boolean {
  return stage === 'carry' && state !== 'working';
}

/** A run that wrote nothing can be let go of. */
export function canDiscard({ stage, state }: Standing): boolean {
  return stage === 'plan' && state !== 'working';
}
