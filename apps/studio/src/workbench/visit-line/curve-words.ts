import type { Device } from '@velarium/contract';
import { shareAt } from '@velarium/core';
import type { Curves } from '../../site/use-stay-curves.ts';
import { clock, percent } from './scale.ts';
import type { CurveChoice } from './use-curves.ts';

const ON: Readonly<Record<Device | 'any', string>> = {
  any: '',
  desktop: 'desktop ',
  tablet: 'tablet ',
  mobile: 'phone ',
};

/** `Of 812 phone views of these pages, 64 % are still here at 0:10 and 41 % get to 50 %.` */
export function curveWords(
  curves: Curves,
  { of, device }: CurveChoice,
  group: string | undefined,
  second: number | null,
  depth: number | undefined,
): string {
  if (curves.hasFailed) return 'The curves could not be loaded.';
  if (curves.isPending) return 'Loading the curves …';
  if (!curves.isCovering) {
    return group === undefined
      ? 'It covers no page yet, so there are no page views to show.'
      : `No known page is in ${group}, so there are no page views to show.`;
  }
  if (curves.views === 0) return 'No page view of this kind was measured in the last 30 days.';
  const views = `${ON[device]}views of ${group ?? (of === 'site' ? 'the site' : 'these pages')}`;
  const still = second === null ? undefined : shareAt(curves.seconds, second);
  const deep = depth === undefined ? undefined : shareAt(curves.depth, depth);
  const parts = [
    ...(still === undefined || second === null
      ? []
      : [`${percent(still)} are still here at ${clock(second)}`]),
    ...(deep === undefined ? [] : [`${percent(deep)} get to ${depth} %`]),
  ];
  const count = curves.views.toLocaleString('en-GB');
  return parts.length === 0
    ? `${count} ${views} in 30 days.`
    : `Of ${count} ${views}, ${parts.join(' and ')}.`;
}
