const ROOT_2_PI = Math.sqrt(2 * Math.PI);
/** Past it the series loses what it adds up, and the fraction converges at once. */
const SERIES_TO = 3;
const MOST_TERMS = 200;

export const normalDensity = (z: number): number => Math.exp((-z * z) / 2) / ROOT_2_PI;

/**
 * The share of a standard normal above z, right in its relative error far out too.
 *
 * Source: Marsaglia (2004), "Evaluating the normal distribution" (the series); Abramowitz and Stegun 26.2.14 (the
 * continued fraction of the tail).
 */
export function normalTail(z: number): number {
  if (z < 0) return 1 - normalTail(-z);
  if (z <= SERIES_TO) {
    let sum = z;
    for (let [n, term] = [3, z]; n < 2 * MOST_TERMS; n += 2) {
      term *= (z * z) / n;
      const next = sum + term;
      if (next === sum) break;
      sum = next;
    }
    return 0.5 - sum * normalDensity(z);
  }
  let fraction = z;
  for (let n = MOST_TERMS; n >= 1; n--) fraction = z + n / fraction;
  return normalDensity(z) / fraction;
}

/**
 * The z below which a share of a standard normal lies.
 *
 * @param share Between 0 and 1, both left out.
 * @throws {RangeError} Outside of it.
 */
export function normalQuantile(share: number): number {
  if (!(share > 0 && share < 1)) throw new RangeError(`normalQuantile: expected 0 < share < 1, got ${share}`);
  if (share > 0.5) return -normalQuantile(1 - share);
  // Abramowitz and Stegun 26.2.23 to begin with, right to 4.5e-4; each step of Halley's triples the digits.
  const t = Math.sqrt(-2 * Math.log(share));
  let z =
    (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3) -
    t;
  for (let step = 0; step < 3; step++) {
    const off = (normalTail(-z) - share) / normalDensity(z);
    z -= off / (1 + (z * off) / 2);
  }
  return z;
}
