import type { Assumptions, Manifest, Traffic } from '@velarium/contract';
import { createForecast, type Forecast, type ReachGain, reachGains } from '@velarium/core';

/** What a worker is asked to replay; several casts one after the other over the same traffic. */
export interface ReplayTask {
  readonly casts: readonly { readonly key: string; readonly manifest: Manifest }[];
  readonly traffic: Traffic;
  readonly assumptions: Assumptions;
  readonly origin: string;
}
/** What it says: a forecast that is whole, or a first one of few visitors. */
export interface ReplayAnswer {
  readonly key: string;
  readonly forecast: Forecast;
  readonly isWhole: boolean;
  /** How many more visitors each campaign reaches than in the first cast, once both are whole. */
  readonly gains?: readonly ReachGain[];
}

/** Visitors played before a first answer, and between two signs of progress. */
const FIRST = 400;
const PIECE = 1000;

addEventListener('message', ({ data }: MessageEvent<ReplayTask>) => {
  let first: ReturnType<typeof createForecast> | undefined;
  for (const { key, manifest } of data.casts) {
    const forecast = createForecast(manifest, data.traffic, data.assumptions, data.origin);
    for (let count = FIRST; forecast.play(count); count = PIECE)
      postMessage({ key, forecast: forecast.result(), isWhole: false } satisfies ReplayAnswer);
    postMessage({
      key,
      forecast: forecast.result(),
      isWhole: true,
      ...(first ? { gains: reachGains(first, forecast, manifest.campaigns) } : {}),
    } satisfies ReplayAnswer);
    first ??= forecast;
  }
});
