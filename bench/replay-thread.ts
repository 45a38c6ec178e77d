import type { Manifest, Traffic } from '@velarium/contract';
import { createForecast, USUAL_ASSUMPTIONS } from '@velarium/core';

/** Replays a share of the traffic in a browser's thread, and says how long it took and how many showings came of it. */
addEventListener('message', ({ data }: MessageEvent<{ manifest: Manifest; traffic: Traffic }>) => {
  const beganAt = performance.now();
  const forecast = createForecast(data.manifest, data.traffic, USUAL_ASSUMPTIONS, 'https://s.example');
  while (forecast.play(1000));
  const showings = forecast.result().campaigns.reduce((sum, one) => sum + one.showings.value, 0);
  postMessage({ ms: performance.now() - beganAt, showings });
});
