import type { ReactNode } from 'react';
import { Link, type LinkProps } from 'react-router';

/** A page: a sentence that says what is so, a row of actions, then the work. */
export function Page({
  headline,
  actions,
  aside,
  below,
  children,
}: {
  headline: ReactNode;
  actions?: ReactNode;
  aside?: ReactNode;
  /** What is to be known beside the headline, in small. */
  below?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-3.5 px-6 pt-5 pb-5">
      <div>
        <h1 className="max-w-[1040px] text-[20px] leading-[1.35] font-medium text-pretty">{headline}</h1>
        {below && <div className="mt-0.5 text-[13px] text-quiet">{below}</div>}
      </div>
      {(actions || aside) && (
        <div className="flex flex-wrap items-center gap-2">
          {actions}
          <div className="ml-auto text-[13px] text-quiet">{aside}</div>
        </div>
      )}
      {children}
    </div>
  );
}

const tones = {
  so: 'text-eucalypt decoration-eucalypt',
  warns: 'text-wattle decoration-wattle-fill',
  blocks: 'text-waratah decoration-waratah',
  informs: 'text-estuary decoration-estuary',
} as const;

export type Tone = keyof typeof tones;

const figureLook =
  'rounded-sm font-bold underline decoration-dotted decoration-2 underline-offset-[5px] hover:decoration-solid';

/** A live figure inside a headline; choosing it filters or leads on. */
export function Figure({ tone = 'so', ...link }: LinkProps & { tone?: Tone }) {
  return <Link className={`${figureLook} ${tones[tone]}`} {...link} />;
}

/** A figure that acts on this page rather than leading elsewhere. */
export function FigureButton({
  tone = 'so',
  onClick,
  children,
}: {
  tone?: Tone;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button type="button" className={`${figureLook} ${tones[tone]}`} onClick={onClick}>
      {children}
    </button>
  );
}

/** A figure in a headline that leads nowhere. */
export function Strong({ tone = 'so', children }: { tone?: Tone; children: ReactNode }) {
  return <b className={`font-bold ${tones[tone].split(' ')[0]}`}>{children}</b>;
}
