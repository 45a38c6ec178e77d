/**
 * How many times the information at which it is narrowest the mixture's variance is: the least of its width at an error
 * of 5 %.
 */
const NARROWEST = 8.2;

/**
 * The z a difference must pass, whenever one looks and for however long: the boundary of a normal mixture.
 *
 * @param information 1 over the variance of the difference so far.
 * @param tuned Information at which it is to be narrowest.
 * Source: Robbins (1970), "Statistical methods related to the law of the iterated logarithm"; Howard, Ramdas, McAuliffe
 * and Sekhon (2021), "Time-uniform, nonparametric, nonasymptotic confidence sequences", (14).
 */
export function mixtureBoundary(information: number, tuned: number, alpha: number): number {
  if (!(information > 0)) return Number.POSITIVE_INFINITY;
  const mixing = tuned / NARROWEST;
  return Math.sqrt((1 + mixing / information) * Math.log((information + mixing) / (mixing * alpha * alpha)));
}
