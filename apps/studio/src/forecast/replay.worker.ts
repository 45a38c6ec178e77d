import type { Assumptions, Manifest, MetByPage, Traffic } from '@velarium/contract';
import { createForecast, type Forecast } from '@velarium/core';

/** What a thread is told first: what all casts it is given are replayed over. */
export interface ReplayGround {
  readonly traffic: Traffic;
  readonly assumptions: Assumptions;
  readonly origin: string;
}
/** And then, one after the other, as it is done with the last. */
export interface ReplayTask {
  readonly key: string;
  readonly manifest: Manifest;
}
/** What it says: a forecast that is whole, or a first one of few visitors. */
export interface ReplayAnswer {
  readonly key: string;
  readonly forecast: Forecast;
  /** Of a whole one, whom each campaign reached, a bit for each visitor. */
  readonly who?: ReadonlyMap<string, Uint8Array>;
  /** Of a whole one, how often each campaign was shown on each page. */
  readonly byPage?: readonly MetByPage[];
}

/** Visitors played before a first answer, and between two signs of progress. */
const FIRST = 400;
const PIECE = 2000;

let ground: ReplayGround | undefined;

addEventListener('message', ({ data }: MessageEvent<ReplayGround | ReplayTask>) => {
  if ('traffic' in data) {
    ground = data;
    return;
  }
  if (!ground) return;
  const { key, manifest } = data;
  const forecast = createForecast(manifest, ground.traffic, ground.assumptions, ground.origin);
  for (let count = FIRST; forecast.play(count); count = PIECE)
    postMessage({ key, forecast: forecast.result() } satisfies ReplayAnswer);
  postMessage({
    key,
    forecast: forecast.result(),
    who: forecast.who(),
    byPage: forecast.byPage(),
  } satisfies ReplayAnswer);
});
