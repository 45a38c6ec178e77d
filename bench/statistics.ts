import {
  compareStretches,
  conversionRate,
  type ExperimentDay,
  type ExperimentPlan,
  experimentVerdict,
  isDividedWrongly,
  rateDifference,
} from '@velarium/core';

/**
 * What the statistics promise, held against simulated experiments. Run by hand: `node --import tsx bench/statistics.ts
 * [experiments]`; its figures stand in docs/statistics.md.
 */
const EXPERIMENTS = Number(process.argv[2] ?? 10_000);
const DAYS = 60;
const PER_DAY = 136;
const RATE = 0.05;
const DIFFERENCE = 0.01;
const A_SIDE = 8158;

/** Source: Marsaglia (2003), "Xorshift RNGs", 32 bits; the same figures come every time. */
function randomFrom(seed: number): () => number {
  let state = seed >>> 0 || 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state / 2 ** 32;
  };
}
const random = randomFrom(20_261_127);
/** How many of so many, each with this chance. */
function binomial(trials: number, chance: number): number {
  let count = 0;
  for (let n = 0; n < trials; n++) if (random() < chance) count++;
  return count;
}
function poisson(mean: number): number {
  const end = Math.exp(-mean);
  let count = -1;
  for (let product = 1; product > end; product *= random()) count++;
  return count;
}
/** A mean that itself varies from day to day, so that counts are as many times as uneven as chance makes them. */
function unevenPoisson(mean: number, unevenness: number): number {
  if (unevenness <= 1) return poisson(mean);
  // A gamma with this shape: the sum of that many exponentials, the last of them in part.
  const shape = mean / (unevenness - 1);
  let gamma = 0;
  for (let n = 0; n < Math.floor(shape); n++) gamma -= Math.log(random());
  gamma -= Math.log(random()) * (shape % 1);
  return poisson((gamma / shape) * mean);
}

/** An experiment whose outcomes come up to four days late: who enters counts four days after. */
function simulate(rates: readonly number[]): ExperimentDay[] {
  const sums = rates.map(() => ({ visitors: 0, converters: 0 }));
  const days: ExperimentDay[] = [];
  for (let day = 1; day <= DAYS; day++) {
    rates.forEach((rate, at) => {
      const sum = sums[at] as { visitors: number; converters: number };
      sum.visitors += PER_DAY;
      sum.converters += binomial(PER_DAY, rate);
    });
    if (day > 4)
      days.push({
        day: String(day),
        arms: sums.map((sum, at) => ({ id: 'ab'[at] as string, weight: 50, ...sum })),
      });
  }
  return days;
}

const share = (count: number, of: number) => `${((count / of) * 100).toFixed(2)} %`;
const plans: Record<string, ExperimentPlan> = {
  planned: { visitorsASide: A_SIDE, smallest: DIFFERENCE },
  'without an end': { visitorsASide: null, smallest: DIFFERENCE },
};

for (const [name, plan] of Object.entries(plans)) {
  for (const rates of [
    [RATE, RATE],
    [RATE, RATE + DIFFERENCE],
  ]) {
    let [winners, days] = [0, 0];
    for (let n = 0; n < EXPERIMENTS; n++) {
      const simulated = simulate(rates);
      const { stories } = experimentVerdict(simulated, plan);
      const decided = stories[0]?.decided;
      if (decided) {
        winners++;
        days += Number(decided.day);
      }
    }
    console.log(
      `${name}, ${rates.join(' against ')}: a winner in ${share(winners, EXPERIMENTS)}, after ${(days / Math.max(1, winners)).toFixed(1)} days on average`,
    );
  }
}

{
  let [wrong, noticed] = [0, 0];
  for (let n = 0; n < EXPERIMENTS; n++) {
    const isAlarmed = (chance: number) => {
      const counts = [0, 0];
      for (let day = 0; day < DAYS; day++) {
        const first = binomial(2 * PER_DAY, chance);
        counts[0] = (counts[0] as number) + first;
        counts[1] = (counts[1] as number) + 2 * PER_DAY - first;
        if (isDividedWrongly(counts.map((visitors) => ({ weight: 50, visitors })))) return true;
      }
      return false;
    };
    if (isAlarmed(0.5)) wrong++;
    if (isAlarmed(0.52)) noticed++;
  }
  console.log(
    `division looked at on ${DAYS} days: false alarms ${share(wrong, EXPERIMENTS)}; 52 against 48 noticed in ${share(noticed, EXPERIMENTS)}`,
  );
}

for (const [visitors, rate] of [
  [20, 0.05],
  [20, 0.5],
  [200, 0.05],
  [2000, 0.05],
  [20_000, 0.31],
] as const) {
  let [wilson, newcombe] = [0, 0];
  for (let n = 0; n < EXPERIMENTS; n++) {
    const one = { visitors, converters: binomial(visitors, rate) };
    const other = { visitors, converters: binomial(visitors, rate * 1.1) };
    const { low, high } = conversionRate(one);
    if (low <= rate && rate <= high) wilson++;
    const difference = rateDifference(one, other);
    if (difference.low <= rate * 0.1 && rate * 0.1 <= difference.high) newcombe++;
  }
  console.log(
    `${visitors} visitors at ${rate}: Wilson covers ${share(wilson, EXPERIMENTS)}, Newcombe ${share(newcombe, EXPERIMENTS)}`,
  );
}

const WEEK = [0.8, 0.75, 0.8, 0.95, 1.25, 1.6, 1.5];
for (const [mean, unevenness] of [
  [8, 1],
  [8, 3],
  [60, 1],
  [60, 4],
] as const) {
  let [covered, called] = [0, 0];
  const stretch = (from: number, factor: number) =>
    Array.from({ length: 28 }, (_, n) => ({
      day: new Date(Date.UTC(2026, 8, 7 + from + n)).toISOString().slice(0, 10),
      count: unevenPoisson(mean * (WEEK[n % 7] as number) * factor, unevenness),
    }));
  for (let n = 0; n < EXPERIMENTS; n++) {
    const { low, high } = compareStretches(stretch(0, 1), stretch(28, 1.2));
    if (low <= 1.2 && 1.2 <= high) covered++;
    if (low > 1 || high < 1) called++;
  }
  console.log(
    `28 days against 28 of ${mean} a day, ${unevenness} times as uneven as chance: the interval covers ${share(covered, EXPERIMENTS)}, a fifth more is called ${share(called, EXPERIMENTS)}`,
  );
}
