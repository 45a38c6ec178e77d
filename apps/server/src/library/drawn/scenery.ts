/** A number between 0 and 1 that follows from two others: the same picture is drawn every time. */
const strewn = (n: number, seed: number): number => {
  const x = Math.sin(n * 127.1 + seed * 311.7) * 43_758.5453;
  return x - Math.floor(x);
};
const round = (value: number) => Math.round(value * 10) / 10;

/** A picture over a sky of three colours, from the top down. */
export const svg = ([top, middle, bottom]: readonly [string, string, string], inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 800" width="1200" height="800" preserveAspectRatio="xMidYMid slice"><defs><linearGradient id="s" x2="0" y2="1"><stop stop-color="${top}"/><stop offset=".6" stop-color="${middle}"/><stop offset="1" stop-color="${bottom}"/></linearGradient></defs><path d="M0 0h1200v800H0z" fill="url(#s)"/>${inside}</svg>`;

export const stars = (count: number, seed: number): string =>
  Array.from({ length: count }, (_, n) => {
    const [x, y, size, light] = [1, 2, 3, 4].map((k) => strewn(n * 7 + k, seed)) as [
      number,
      number,
      number,
      number,
    ];
    return `<circle cx="${round(x * 1200)}" cy="${round(y * 620)}" r="${round(0.8 + size * size * 2.6)}" fill="#fff" opacity="${round(0.3 + light * 0.7)}"/>`;
  }).join('');

/** A line of hills down to the lower edge. */
export function hills(colour: string, base: number, height: number, seed: number): string {
  const tops = Array.from({ length: 9 }, (_, n) => [n * 150, base - strewn(n, seed) * height] as const);
  const line = tops
    .map(([x, y], n) => {
      const before = tops[n - 1];
      return before
        ? `Q${before[0] + 75} ${round(Math.min(before[1], y) - height * 0.25)} ${x} ${round(y)}`
        : `M0 ${round(y)}`;
    })
    .join('');
  return `<path d="${line}V800H0z" fill="${colour}"/>`;
}

/** Waves on water. */
export const waves = (colour: string, from: number, opacity: number, seed: number): string =>
  Array.from({ length: 22 }, (_, n) => {
    const x = strewn(n, seed) * 1100;
    const y = from + strewn(n + 40, seed) * (780 - from);
    const long = 40 + strewn(n + 80, seed) * 120;
    return `<path d="M${round(x)} ${round(y)}h${round(long)}" stroke="${colour}" stroke-opacity="${opacity}" stroke-width="5" stroke-linecap="round"/>`;
  }).join('');
