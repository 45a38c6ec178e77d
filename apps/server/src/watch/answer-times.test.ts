import fc from 'fast-check';
import { Histogram, Registry } from 'prom-client';
import { expect, it } from 'vitest';
import { AnswerTimes, BOUNDS } from './answer-times.ts';

const openMetrics = () => {
  const registry = new Registry<typeof Registry.OPENMETRICS_CONTENT_TYPE>();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
  return registry;
};
const linesOf = async (registry: Registry<typeof Registry.OPENMETRICS_CONTENT_TYPE>) =>
  (await registry.metrics())
    .split('\n')
    // The order of labels says nothing. Source: OpenMetrics 1.0, Labels.
    .map((line) => line.replace(/\{(.*)\}/, (_, labels: string) => `{${labels.split(',').sort().join(',')}}`))
    .sort();

/** The reference is the library's own histogram. */
it('says of answers what a histogram of the same bounds says', async () => {
  const seconds = fc.oneof(fc.constantFrom(0, ...BOUNDS), fc.double({ min: 0, max: 20, noNaN: true }));
  const answer = fc.record({
    role: fc.constantFrom('edge', 'studio'),
    method: fc.constantFrom('GET', 'POST'),
    route: fc.constantFrom('/collect', '/tag/:key/manifest.json', 'none'),
    status: fc.constantFrom(200, 204, 404, 422, 503),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(answer, seconds)), async (answers) => {
      const [own, reference] = [openMetrics(), openMetrics()];
      const times = new AnswerTimes(own);
      const histogram = new Histogram({
        name: 'velarium_http_request_duration_seconds',
        help: 'How long requests took, by the role that answered, the route and the class of the status.',
        labelNames: ['role', 'method', 'route', 'status'],
        buckets: BOUNDS,
        registers: [reference],
      });
      for (const [labels, took] of answers) {
        times.add(labels, took);
        histogram.observe({ ...labels, status: `${Math.floor(labels.status / 100)}xx` }, took);
      }
      expect(await linesOf(own)).toEqual(await linesOf(reference));
      expect(await own.getMetricsAsJSON()).toHaveLength(1);
    }),
  );
});
