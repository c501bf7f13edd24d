interface OnPointProps {
  readonly text: string;
  /** Digits after the point that the figures of its column have at most. */
  readonly decimals: number;
  readonly className?: string;
}

/** A figure of a column to the right: its decimal point stands below that of the others, however many digits follow it. */
export function OnPoint({ text, decimals, className = '' }: OnPointProps) {
  const [, own] = /[.,](\d+)$/.exec(text) ?? [];
  const lacking = decimals === 0 ? 0 : own === undefined ? decimals + 1 : decimals - own.length;
  return (
    <span className={`figures ${className}`} style={{ paddingRight: `${Math.max(0, lacking)}ch` }}>
      {text}
    </span>
  );
}

/** Digits after the point of the figure that has most of them. */
export function mostDecimals(figures: readonly (string | null)[]): number {
  return Math.max(0, ...figures.map((figure) => /[.,](\d+)$/.exec(figure ?? '')?.[1]?.length ?? 0));
}
