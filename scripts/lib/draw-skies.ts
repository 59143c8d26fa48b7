/** Skies over the moor, drawn from a seed: the same seed is the same sky. */

export const SKIES = ['comet', 'river', 'trails', 'moon', 'dusk', 'mirror', 'planets', 'aurora'] as const;
export type SkyKind = (typeof SKIES)[number];
const [WIDTH, HEIGHT] = [1600, 900];

/** Numbers from 0 to 1 in a fixed order for each seed (mulberry32). */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const GROUNDS: Record<SkyKind, [string, string, string]> = {
  comet: ['#16232f', '#3b4d68', '#a07648'],
  river: ['#0b141a', '#16303c', '#2c4650'],
  trails: ['#33465a', '#7d958f', '#dcc592'],
  moon: ['#101b2a', '#2d3f58', '#7f7b80'],
  dusk: ['#26374f', '#8d6f7e', '#e0a56a'],
  mirror: ['#1a2320', '#2f4640', '#57665a'],
  planets: ['#121a2b', '#33375c', '#86677b'],
  aurora: ['#0c1a20', '#15453f', '#2b5a4a'],
};

/** A sky as an SVG of 1600 by 900. */
export function drawSky(kind: SkyKind, seed: number): string {
  const next = random(seed * 97 + kind.length);
  const [top, middle, low] = GROUNDS[kind];
  const between = (least: number, most: number): number => least + next() * (most - least);
  const stars = Array.from({ length: 420 }, () => {
    const [x, y] = [between(0, WIDTH), between(0, HEIGHT * 0.82)];
    const size = next() ** 4 * 2.6 + 0.5;
    const warm = next() > 0.85 ? '#f0c26a' : '#f4f1e6';
    return `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${size.toFixed(2)}" fill="${warm}" opacity="${between(0.3, 1).toFixed(2)}"/>`;
  });
  const hills = (base: number, rise: number, fill: string): string => {
    const points = Array.from(
      { length: 12 },
      (_, n) => `${Math.round((n * WIDTH) / 11)},${Math.round(base - next() * rise)}`,
    );
    return `<polygon points="0,${HEIGHT} ${points.join(' ')} ${WIDTH},${HEIGHT}" fill="${fill}"/>`;
  };
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}">
<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${top}"/><stop offset=".6" stop-color="${middle}"/><stop offset="1" stop-color="${low}"/></linearGradient>
<linearGradient id="tail"><stop offset="0" stop-color="#fff7e0"/><stop offset="1" stop-color="#fff7e0" stop-opacity="0"/></linearGradient></defs>
<rect width="${WIDTH}" height="${HEIGHT}" fill="url(#sky)"/>
${stars.join('')}
${subject(kind, between, next)}
${hills(HEIGHT - 90, 90, '#16211f')}
${hills(HEIGHT - 40, 60, '#0b1211')}
</svg>`;
}

type Between = (least: number, most: number) => number;

/** What the picture is of. */
function subject(kind: SkyKind, between: Between, next: () => number): string {
  const [x, y] = [between(450, 1150), between(200, 480)];
  switch (kind) {
    case 'comet':
      return `<g transform="rotate(${between(-32, -14).toFixed(0)} ${x} ${y})"><ellipse cx="${x + 210}" cy="${y}" rx="230" ry="20" fill="url(#tail)" opacity=".55"/><ellipse cx="${x + 130}" cy="${y + 4}" rx="140" ry="9" fill="url(#tail)"/><circle cx="${x}" cy="${y}" r="10" fill="#fff9ea"/></g>`;
    case 'river':
      return Array.from({ length: 900 }, () => {
        const along = between(-0.1, 1.1);
        const off = (next() + next() + next() - 1.5) * 130;
        return `<circle cx="${(along * WIDTH + off * 0.3).toFixed(0)}" cy="${(780 - along * 760 + off).toFixed(0)}" r="${between(0.6, 2.1).toFixed(1)}" fill="#e9ecdf" opacity="${between(0.15, 0.7).toFixed(2)}"/>`;
      }).join('');
    case 'trails':
      return Array.from({ length: 26 }, (_, n) => {
        const radius = 40 + n * 34;
        const from = between(0, 6.28);
        const sweep = between(0.5, 1.2);
        const at = (angle: number): string =>
          `${(x + radius * Math.cos(angle)).toFixed(0)} ${(y + radius * Math.sin(angle)).toFixed(0)}`;
        return `<path d="M${at(from)}A${radius} ${radius} 0 0 1 ${at(from + sweep)}" stroke="#fdf6dd" stroke-width="${between(1, 2.6).toFixed(1)}" fill="none" opacity="${between(0.3, 0.85).toFixed(2)}"/>`;
      }).join('');
    case 'moon':
      return `<circle cx="${x}" cy="${y}" r="120" fill="#efe7d2"/><circle cx="${x + between(30, 70)}" cy="${y - 16}" r="112" fill="#22324a"/>`;
    case 'dusk':
      return `<polygon points="${x - 60},${HEIGHT} ${x + 160},120 ${x + 420},${HEIGHT}" fill="#f5e3bd" opacity=".22"/><polygon points="${x + 40},${HEIGHT} ${x + 170},200 ${x + 330},${HEIGHT}" fill="#f8ecd0" opacity=".2"/>`;
    case 'mirror':
      return `<circle cx="${x}" cy="${y + 60}" r="230" fill="#8fa6a0" opacity=".25"/><circle cx="${x}" cy="${y + 60}" r="206" fill="#cdd9d2" opacity=".3"/><circle cx="${x}" cy="${y + 60}" r="206" fill="none" stroke="#f4efe0" stroke-width="5"/><path d="M${x - 150} ${y}a190 190 0 0 1 210-110" stroke="#fffbea" stroke-width="9" fill="none" opacity=".8"/>`;
    case 'planets':
      return `<g opacity=".95"><circle cx="${x}" cy="${y}" r="64" fill="#e2bf86"/><ellipse cx="${x}" cy="${y}" rx="130" ry="26" fill="none" stroke="#f2ddb3" stroke-width="9" transform="rotate(-18 ${x} ${y})"/><circle cx="${x - 330}" cy="${y + 90}" r="22" fill="#e8dcc8"/><circle cx="${x + 320}" cy="${y - 70}" r="13" fill="#d98d63"/></g>`;
    case 'aurora':
      return Array.from({ length: 60 }, (_, n) => {
        const left = n * 27 + between(-10, 10);
        const height = between(160, 420);
        return `<rect x="${left.toFixed(0)}" y="${(560 - height + Math.sin(n / 5) * 70).toFixed(0)}" width="16" height="${height.toFixed(0)}" rx="8" fill="#7fe0ae" opacity="${between(0.06, 0.26).toFixed(2)}"/>`;
      }).join('');
  }
}
