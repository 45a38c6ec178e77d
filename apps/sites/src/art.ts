/** Drawn pictures: ridges, stars and water from simple repeatable numbers, so no picture comes from elsewhere. */
const noise = (seed: number) => {
  const x = Math.sin(seed * 127.1) * 43_758.5453;
  return x - Math.floor(x);
};

const STEPS = 24;
const ridgeAt = (i: number, seed: number, base: number, height: number): number =>
  base - height * (0.45 * noise(seed + i) + 0.55 * Math.sin((i / STEPS) * Math.PI + seed));

function ridge(seed: number, base: number, height: number, width: number): string {
  const points = Array.from(
    { length: STEPS + 1 },
    (_, i) => `${((i / STEPS) * width).toFixed(0)},${ridgeAt(i, seed, base, height).toFixed(0)}`,
  );
  return `0,500 ${points.join(' ')} ${width},500`;
}

export function nightSky(seed: number, label: string): string {
  const stars = Array.from({ length: 90 }, (_, i) => {
    const [x, y, r] = [
      noise(seed + i) * 1200,
      noise(seed + i * 3 + 7) * 330,
      0.6 + noise(seed + i * 5) * 1.6,
    ];
    return `<circle cx="${x.toFixed(0)}" cy="${y.toFixed(0)}" r="${r.toFixed(1)}"/>`;
  }).join('');
  // The dome stands on the nearer ridge, a little sunk in.
  const foot = Math.max(ridgeAt(18, seed + 9, 470, 90), ridgeAt(19, seed + 9, 470, 90)) + 4;
  return `<svg class="art" viewBox="0 0 1200 500" role="img" aria-label="${label}" preserveAspectRatio="xMidYMid slice">
<defs><linearGradient id="g${seed}" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#0d1730"/><stop offset="1" stop-color="#3c5a7d"/></linearGradient></defs>
<rect width="1200" height="500" fill="url(#g${seed})"/><g fill="#f7efd6">${stars}</g>
<polygon points="${ridge(seed, 420, 120, 1200)}" fill="#22344f"/>
<path d="M891 ${foot}v-40a34 34 0 0 1 68 0v40z" fill="#d9d2c0"/><path d="M921 ${foot - 73}h8v50h-8z" fill="#131f35"/>
<polygon points="${ridge(seed + 9, 470, 90, 1200)}" fill="#131f35"/></svg>`;
}

export function seaAndBoat(seed: number, label: string): string {
  const waves = [330, 370, 410, 450]
    .map((y, i) => `<path d="${wave(y, seed + i)}" fill="hsl(203 45% ${34 - i * 6}%)"/>`)
    .join('');
  return `<svg class="art" viewBox="0 0 1200 500" role="img" aria-label="${label}" preserveAspectRatio="xMidYMid slice">
<rect width="1200" height="500" fill="#dfe9ea"/><circle cx="930" cy="150" r="54" fill="#f3c98b"/>
<path d="M430 330l40-70h210l60 70z" fill="#b5452c"/><path d="M500 260v-44h130v44z" fill="#fff"/><path d="M560 216v-40h26v40z" fill="#1c3d50"/>${waves}</svg>`;
}

function wave(y: number, seed: number): string {
  const crests = Array.from(
    { length: 12 },
    (_, i) => `q50,${(10 + noise(seed + i) * 18).toFixed(0)} 100,0`,
  ).join('');
  return `M0,${y}${crests}V500H0z`;
}

export const FELL_ICON =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="6" fill="#16223b"/><path d="M4 25l8-12 5 7 4-6 7 11z" fill="#f0c257"/><circle cx="22" cy="8" r="2" fill="#fff"/></svg>';
export const SKERRY_ICON =
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="6" fill="#dfe9ea"/><path d="M6 18l3-6h13l4 6z" fill="#b5452c"/><path d="M3 21q4 4 8 0t8 0 8 0v8H3z" fill="#1c3d50"/></svg>';
