import { Histogram, type OpenMetricsContentType, type Registry } from 'prom-client';

/** Upper bounds, seconds: from what comes out of memory to what somebody has given up on. */
export const BOUNDS = [0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

const NAME = 'velarium_http_request_duration_seconds';
const HELP = 'How long requests took, by the role that answered, the route and the class of the status.';

export interface Answered {
  readonly role: string;
  readonly method: string;
  /** A route, never an address: those are without number, and may name somebody. */
  readonly route: string;
  readonly status: number;
}

interface Tally extends Omit<Answered, 'status'> {
  /** 2 of 204. */
  readonly statusClass: number;
  /** Answers by the first bound that holds them, and last those that none does. */
  readonly counts: number[];
  /** Of all of them, seconds. */
  sum: number;
}

/**
 * How long answers took. Only counted while they are given, and put into words when somebody asks: an edge answers from
 * memory in some 40 µs, and telling the library's histogram of each answer takes a tenth of that.
 */
export class AnswerTimes extends Histogram<string> {
  /** By route, and then by the rest: to put a name together for each answer would cost more than adding it up. */
  readonly #tallies = new Map<string, Tally[]>();

  constructor(registry: Registry<OpenMetricsContentType>) {
    super({
      name: NAME,
      help: HELP,
      labelNames: ['role', 'method', 'route', 'status'],
      buckets: BOUNDS,
      registers: [registry],
    });
  }

  add(answered: Answered, seconds: number): void {
    const tally = this.#tallyOf(answered);
    let at = 0;
    while (at < BOUNDS.length && seconds > (BOUNDS[at] as number)) at += 1;
    (tally.counts[at] as number) += 1;
    tally.sum += seconds;
  }

  #tallyOf({ role, method, route, status }: Answered): Tally {
    let ofRoute = this.#tallies.get(route);
    if (!ofRoute) {
      ofRoute = [];
      this.#tallies.set(route, ofRoute);
    }
    const statusClass = Math.trunc(status / 100);
    let tally = ofRoute.find(
      (one) => one.statusClass === statusClass && one.role === role && one.method === method,
    );
    if (!tally) {
      tally = { role, method, route, statusClass, counts: BOUNDS.map(() => 0).concat(0), sum: 0 };
      ofRoute.push(tally);
    }
    return tally;
  }

  /** Source: `Histogram` of the library, which asks this of itself, and has nothing to add up meanwhile. */
  getForPromString() {
    const values = [...this.#tallies.values()].flat().flatMap(told);
    return { name: NAME, help: HELP, type: 'histogram', values, aggregator: 'sum' };
  }
}

/** A tally in the library's form: each bucket holds those before it. */
function told({ role, method, route, statusClass, counts, sum }: Tally) {
  const sharedLabels = { role, method, route, status: `${statusClass}xx` };
  let upTo = 0;
  const buckets = counts.map((count, at) => {
    upTo += count;
    return { metricName: `${NAME}_bucket`, labels: { le: BOUNDS[at] ?? '+Inf' }, sharedLabels, value: upTo };
  });
  return [
    ...buckets,
    { metricName: `${NAME}_sum`, labels: {}, sharedLabels, value: sum },
    { metricName: `${NAME}_count`, labels: {}, sharedLabels, value: upTo },
  ];
}
