import type { KeyCut } from '@/core/key-cut';

/** Day and night tints of the keys. */
export const TINTS: Record<KeyCut['tint'], string> = {
  teal: 'light-dark(#1c7a85, #6fc6cf)',
  brass: 'light-dark(#a86f12, #e2b04a)',
  slate: 'light-dark(#56688c, #a9b8da)',
  heather: 'light-dark(#8a4a86, #d79ed3)',
  rust: 'light-dark(#b5502f, #f0a184)',
  fern: 'light-dark(#3d7048, #93cf9e)',
  rose: 'light-dark(#a83f5f, #f19bb4)',
  ink: 'light-dark(#3d4a4d, #c5ccc9)',
};

const REACH = [0, 3.2, 5.6, 8];

type Props = { cut: KeyCut; size?: number; onNight?: boolean; className?: string };

/** A tier's key: shape first, colour second. It is shown beside the tier's name, so it has no text of its own. */
export function KeyGlyph({ cut, size = 18, onNight = false, className }: Props) {
  const shaft = 15 + cut.notches.length * 5;
  const width = shaft + 2;
  return (
    <svg
      className={className}
      width={(size * width) / 18}
      height={size}
      viewBox={`0 0 ${width} 18`}
      fill="none"
      stroke="currentColor"
      strokeWidth={2.4}
      strokeLinecap="round"
      aria-hidden
      style={{ color: TINTS[cut.tint], colorScheme: onNight ? 'dark' : undefined, flex: 'none' }}
    >
      <circle cx="6.5" cy="7" r="4.6" />
      <path d={`M11.2 7H${shaft}`} />
      {cut.notches.map((depth, index) => (
        <path key={index} d={`M${shaft - (cut.notches.length - 1 - index) * 5} 7v${REACH[depth] ?? 3.2}`} />
      ))}
    </svg>
  );
}

/** A tier where it is named in running text or a row: its key, then its name. */
export function TierName({
  cut,
  name,
  size = 15,
  onNight = false,
}: {
  cut: KeyCut;
  name: string;
  size?: number;
  onNight?: boolean;
}) {
  return (
    <span className="inline-flex items-baseline gap-1.5 whitespace-nowrap">
      <KeyGlyph cut={cut} size={size} onNight={onNight} className="translate-y-[0.18em]" />
      {name}
    </span>
  );
}
