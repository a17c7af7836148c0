import type { Effect } from '@isomeros/core/contract';

const TITLES: Readonly<Record<Effect, string>> = {
  safe: 'safe: it reads',
  idempotent: 'unsafe but idempotent',
  neither: 'neither safe nor idempotent',
};

interface Props {
  readonly effect: Effect;
  readonly size?: number;
}

/** The mark of an operation's effect (RFC 9110 §9.2): open for safe, half for idempotent, full for neither. */
export function EffectMark({ effect, size = 10 }: Props): React.JSX.Element {
  return (
    <svg
      className="effect-mark"
      width={size}
      height={size}
      viewBox="0 0 10 10"
      role="img"
      aria-label={TITLES[effect]}
    >
      <title>{TITLES[effect]}</title>
      <circle
        cx="5"
        cy="5"
        r="4"
        fill={effect === 'neither' ? 'currentColor' : 'none'}
        stroke="currentColor"
        strokeWidth="1.4"
      />
      {effect === 'idempotent' && <path d="M5 1a4 4 0 0 0 0 8z" fill="currentColor" />}
    </svg>
  );
}
