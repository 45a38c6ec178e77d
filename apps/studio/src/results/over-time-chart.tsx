import type { ResultMark, ResultPoint, Stretch } from '@velarium/contract';
import { counted, daysIn, daysOf, figure } from '@velarium/core';
import { BarChart, LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useMemo, useRef } from 'react';

use([BarChart, LineChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

export interface OverTimeProps {
  readonly period: Stretch;
  readonly against: Stretch | null;
  readonly points: readonly ResultPoint[];
  readonly pointsAgainst: readonly ResultPoint[];
  readonly marks: readonly ResultMark[];
  /** Of one campaign: its id, and what opens a version of it. */
  readonly id?: string;
  readonly onVersion?: (version: number) => void;
}

const HOURS = 24;
const DONE_WORDS: Readonly<Record<ResultMark['what'], string>> = {
  published: 'published',
  rested: 'put to rest',
  resumed: 'run again',
};

/** Every step of a stretch by its name: days, or the hours of a single one. */
const stepsOf = (stretch: Stretch): string[] =>
  daysIn(stretch) === 1
    ? Array.from({ length: HOURS }, (_, hour) => `${stretch.from}T${String(hour).padStart(2, '0')}`)
    : daysOf(stretch);
const shortDay = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const stepWords = (step: string): string =>
  step.includes('T') ? `${step.slice(11)}:00` : shortDay.format(new Date(`${step}T00:00:00Z`));

/** Showings as bars and conversions as a line, step by step, with what was done with campaigns marked on them. */
export function OverTimeChart(props: OverTimeProps) {
  const { period, against, points, pointsAgainst, marks, id, onVersion } = props;
  const own = useMemo(
    () => marks.filter(({ campaignId, what }) => campaignId === id && what === 'published'),
    [marks, id],
  );
  const openVersion = useRef(onVersion);
  openVersion.current = onVersion;
  const frame = useRef<HTMLDivElement>(null);
  const data = useMemo(() => {
    const steps = stepsOf(period);
    const by = (all: readonly ResultPoint[]) => new Map(all.map((point) => [point.at, point]));
    const [now, before] = [by(points), by(pointsAgainst)];
    const others = against ? stepsOf(against) : [];
    return steps.map((step, at) => ({
      step,
      showings: now.get(step)?.showings ?? 0,
      conversions: now.get(step)?.conversions ?? 0,
      before: against ? (before.get(others[at] ?? '')?.conversions ?? 0) : null,
      done: marks.filter(({ day }) => day === step),
    }));
  }, [period, against, points, pointsAgainst, marks]);

  useEffect(() => {
    if (!frame.current) return undefined;
    const chart = init(frame.current, undefined, { renderer: 'svg' });
    const colour = (name: string) =>
      getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();
    const axis = {
      axisLine: { show: false },
      axisTick: { show: false },
      axisLabel: { color: colour('soft') },
    };
    chart.setOption({
      animation: false,
      textStyle: { fontFamily: 'inherit' },
      grid: { left: 44, right: 44, top: 22, bottom: 24 },
      tooltip: {
        trigger: 'axis',
        backgroundColor: colour('ink'),
        borderWidth: 0,
        textStyle: { color: colour('sheet'), fontSize: 12 },
        // Names are people's own words: text, never markup.
        renderMode: 'richText',
        formatter: (all: unknown) => {
          const row = data[(all as { dataIndex: number }[])[0]?.dataIndex ?? 0];
          if (!row) return '';
          return [
            stepWords(row.step),
            counted(row.showings, 'showing'),
            `${counted(row.conversions, 'conversion')}${row.before === null ? '' : `, ${figure(row.before)} in the days compared with`}`,
            ...row.done.map(
              ({ name, what, version }) =>
                `${name}: ${DONE_WORDS[what]}${what === 'published' && version ? `, version ${version}` : ''}`,
            ),
          ].join('\n');
        },
      },
      xAxis: { type: 'category', data: data.map(({ step }) => stepWords(step)), ...axis },
      yAxis: [
        { type: 'value', minInterval: 1, splitLine: { lineStyle: { color: colour('line') } }, ...axis },
        { type: 'value', minInterval: 1, splitLine: { show: false }, ...axis },
      ],
      series: [
        {
          type: 'bar',
          data: data.map(({ showings }) => showings),
          itemStyle: { color: colour('line') },
          barCategoryGap: '25%',
          markLine: {
            silent: own.length === 0,
            symbol: ['none', 'triangle'],
            symbolSize: 7,
            label: { show: false },
            emphasis: { lineStyle: { width: 3 } },
            lineStyle: { color: colour('hold'), width: 1, type: 'solid' },
            data: data.flatMap(({ done }, at) => (done.length > 0 ? [{ xAxis: at }] : [])),
          },
        },
        {
          type: 'line',
          yAxisIndex: 1,
          data: data.map(({ before }) => before),
          symbol: 'none',
          lineStyle: { color: colour('line-strong'), width: 1, type: 'dashed' },
        },
        {
          type: 'line',
          yAxisIndex: 1,
          data: data.map(({ conversions }) => conversions),
          symbol: 'circle',
          symbolSize: 4,
          itemStyle: { color: colour('sail') },
          lineStyle: { color: colour('sail'), width: 2 },
        },
      ],
    });
    // The marks of what was published open what it changed; the same stands below in words.
    chart.on('click', { componentType: 'markLine' }, ({ data: mark }) => {
      const step = data[(mark as { xAxis: number }).xAxis]?.step;
      const version = own.filter(({ day }) => day === step).at(-1)?.version;
      if (version) openVersion.current?.(version);
    });
    const fit = new ResizeObserver(() => chart.resize());
    fit.observe(frame.current);
    return () => {
      fit.disconnect();
      chart.dispose();
    };
  }, [data, own]);

  const sum = (of: (row: (typeof data)[number]) => number) => data.reduce((all, row) => all + of(row), 0);
  return (
    <figure className="grid gap-1">
      <div
        ref={frame}
        role="img"
        aria-label={`${counted(
          sum(({ showings }) => showings),
          'showing',
        )} and ${counted(
          sum(({ conversions }) => conversions),
          'conversion',
        )} over ${counted(data.length, daysIn(period) === 1 ? 'hour' : 'day')}`}
        className="h-60 w-full"
      />
      <figcaption className="flex flex-wrap gap-x-5 text-xs text-soft forced-color-adjust-none">
        <span>
          <i aria-hidden="true" className="mr-1.5 inline-block h-2.5 w-3 bg-line align-[-1px]" />
          showings, left scale
        </span>
        <span>
          <i aria-hidden="true" className="mr-1.5 inline-block h-0.5 w-4 bg-sail align-middle" />
          conversions, right scale
        </span>
        {against && (
          <span>
            <i
              aria-hidden="true"
              className="mr-1.5 inline-block w-4 border-t border-dashed border-line-strong align-middle"
            />
            conversions of the days compared with
          </span>
        )}
        {marks.length > 0 && (
          <span>
            <i aria-hidden="true" className="mr-1.5 inline-block h-3 w-px bg-hold align-middle" />
            published, put to rest or run again
          </span>
        )}
      </figcaption>
      {onVersion && own.length > 0 && (
        <p className="flex flex-wrap gap-x-4 text-xs text-soft">
          Published in these days:
          {own.map(({ day, version }) => (
            <button
              key={version}
              type="button"
              className="underline underline-offset-4"
              onClick={() => onVersion(version ?? 1)}
            >
              version {version}, {stepWords(day)}
            </button>
          ))}
        </p>
      )}
      <details>
        <summary className="w-fit text-xs text-soft underline-offset-4 hover:underline">
          The same as a table
        </summary>
        <div className="mt-2 max-h-64 overflow-auto">
          <table className="text-left">
            <caption className="sr-only">Step by step</caption>
            <thead className="text-xs text-soft">
              <tr>
                <th scope="col" className="pr-6 font-medium">
                  When
                </th>
                <th scope="col" className="pr-6 text-right font-medium">
                  Showings
                </th>
                <th scope="col" className="pr-6 text-right font-medium">
                  Conversions
                </th>
                <th scope="col" className="font-medium">
                  Done
                </th>
              </tr>
            </thead>
            <tbody>
              {data.map(({ step, showings, conversions, done }) => (
                <tr key={step} className="border-t border-line">
                  <th scope="row" className="pr-6 font-normal">
                    {stepWords(step)}
                  </th>
                  <td className="pr-6 text-right">{figure(showings)}</td>
                  <td className="pr-6 text-right">{figure(conversions)}</td>
                  <td>{done.map(({ name, what }) => `${name}: ${DONE_WORDS[what]}`).join(', ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  );
}
