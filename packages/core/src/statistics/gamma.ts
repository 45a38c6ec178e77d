/** Coefficients of Lanczos' approximation with g = 7. Source: Godfrey (2001), as given in Pugh (2004). */
const LANCZOS = [
  0.999_999_999_999_809_93, 676.520_368_121_885_1, -1259.139_216_722_402_8, 771.323_428_777_653_13,
  -176.615_029_162_140_6, 12.507_343_278_686_905, -0.138_571_095_265_720_12, 9.984_369_578_019_571_6e-6,
  1.505_632_735_149_311_6e-7,
] as const;
const HALF_LOG_2_PI = Math.log(2 * Math.PI) / 2;
/** From here on Stirling's series is right to the last digit. */
const STIRLING_FROM = 20;

/** The logarithm of the gamma function, for x > 0. */
export function logGamma(x: number): number {
  if (x >= STIRLING_FROM) {
    const r = 1 / (x * x);
    const series = (1 / 12 - r * (1 / 360 - r * (1 / 1260 - r * (1 / 1680 - r / 1188)))) / x;
    return (x - 0.5) * Math.log(x) - x + HALF_LOG_2_PI + series;
  }
  const y = x - 1;
  let sum: number = LANCZOS[0];
  for (let n = 1; n < LANCZOS.length; n++) sum += (LANCZOS[n] as number) / (y + n);
  const t = y + 7.5;
  return HALF_LOG_2_PI + (y + 0.5) * Math.log(t) - t + Math.log(sum);
}

export const logBeta = (a: number, b: number): number => logGamma(a) + logGamma(b) - logGamma(a + b);

const MOST_STEPS = 500;
const TINY = 1e-300;
const CLOSE = 1e-15;

/**
 * The regularised incomplete beta function: the share of a beta distribution below x.
 *
 * Source: NIST Digital Library of Mathematical Functions 8.17.22 (the continued fraction), evaluated by Lentz's method.
 */
export function betaShare(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  // The fraction converges quickly on this side of the mean alone; past 1 the other side is empty.
  if (x > (a + 1) / (a + b + 2)) return 1 - betaShare(1 - x, b, a);
  let c = 1;
  let d = 1 / nonZero(1 - ((a + b) * x) / (a + 1));
  let fraction = d;
  for (let m = 1; m < MOST_STEPS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / nonZero(1 + even * d);
    c = nonZero(1 + even / c);
    fraction *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / nonZero(1 + odd * d);
    c = nonZero(1 + odd / c);
    const factor = d * c;
    fraction *= factor;
    if (Math.abs(factor - 1) < CLOSE) break;
  }
  return (Math.exp(a * Math.log(x) + b * Math.log1p(-x) - logBeta(a, b)) * fraction) / a;
}
const nonZero = (value: number): number => (Math.abs(value) < TINY ? TINY : value);

/**
 * The share of a chi-square distribution above x.
 *
 * Source: NIST Digital Library of Mathematical Functions 8.7.1 (the series) and 8.9.2 (the continued fraction) of the
 * incomplete gamma function.
 */
export function chiSquareTail(x: number, degrees: number): number {
  if (x <= 0) return 1;
  const [a, y] = [degrees / 2, x / 2];
  const front = Math.exp(a * Math.log(y) - y - logGamma(a));
  if (y < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < MOST_STEPS && term > sum * CLOSE; n++) {
      term *= y / (a + n);
      sum += term;
    }
    return 1 - front * sum;
  }
  let b = y + 1 - a;
  let c = 1 / TINY;
  let d = 1 / b;
  let fraction = d;
  for (let n = 1; n < MOST_STEPS; n++) {
    const step = -n * (n - a);
    b += 2;
    d = 1 / nonZero(step * d + b);
    c = nonZero(b + step / c);
    const factor = d * c;
    fraction *= factor;
    if (Math.abs(factor - 1) < CLOSE) break;
  }
  return front * fraction;
}

/** The share of Student's t further from nought than t, on both sides together. */
export const studentTails = (t: number, degrees: number): number =>
  betaShare(degrees / (degrees + t * t), degrees / 2, 0.5);

/** The t beyond which a share of Student's distribution lies on both sides together. */
export function studentPoint(bothTails: number, degrees: number): number {
  let [low, high] = [0, 1];
  while (studentTails(high, degrees) > bothTails && high < 1e12) high *= 2;
  for (let step = 0; step < 100; step++) {
    const middle = (low + high) / 2;
    if (studentTails(middle, degrees) > bothTails) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
