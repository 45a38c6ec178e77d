import { describe, expect, it } from 'vitest';
import { plainMessage } from '../testing/arbitrary.ts';
import { cutOffFindings, type MeasuredStep } from './cut-off.ts';

const measured = (change: Partial<MeasuredStep>): MeasuredStep => ({
  device: 'mobile',
  step: plainMessage.steps[0]?.id ?? '',
  pixels: 84,
  buttons: ['Send'],
  ...change,
});
const high = (value: number) => ({
  ...plainMessage,
  style: {
    ...plainMessage.style,
    all: { ...plainMessage.style.all, height: { unit: 'px' as const, value } },
  },
});

describe('what lies below the edge of the message', () => {
  it('is named with the device and the buttons that are not seen', () => {
    const [finding] = cutOffFindings(plainMessage, [measured({})]);
    expect(finding).toMatchObject({ code: 'size.cut', severity: 'warn' });
    expect(finding?.text).toMatch(
      /^On a phone .*84 px below its edge, “Send” among it: visitors must scroll/,
    );
    expect(finding?.mend).toBeUndefined();
  });
  it.each<[string, Partial<MeasuredStep>, string[]]>([
    ['nothing', { pixels: 0, buttons: [] }, []],
    ['a rounding', { pixels: 7, buttons: [] }, []],
    ['words alone', { pixels: 8, buttons: [] }, ['hint']],
    ['a button by a pixel', { pixels: 2 }, ['warn']],
  ])('%s', (_what, change, severities) => {
    expect(cutOffFindings(plainMessage, [measured(change)]).map(({ severity }) => severity)).toEqual(
      severities,
    );
  });
  it('names the step where there are several, and nothing where nothing is hidden there', () => {
    const [first] = plainMessage.steps;
    if (!first) throw new Error('expected a step');
    const two = { ...plainMessage, steps: [first, { ...first, id: 'second', role: 'success' as const }] };
    const [found] = cutOffFindings(two, [measured({ step: 'second', pixels: 83.2, buttons: [] })]);
    expect(found?.text).toMatch(
      /^On a phone “.+” ends 84 px below its edge: visitors must scroll in the message\. Shorten it/,
    );
    expect(cutOffFindings(plainMessage, [measured({})])[0]?.text).toMatch(/^On a phone it ends 84 px/);
    expect(cutOffFindings(high(200), [measured({})])[0]?.text).toContain('Make it higher, or as high');
  });
  it('is mended by a height that follows the content, where one is set', () => {
    const message = high(200);
    const [finding] = cutOffFindings(message, [measured({ device: 'desktop' })]);
    expect(finding?.text).toContain('On a desktop');
    expect(finding?.mend?.apply(message).style.all).toEqual(plainMessage.style.all);
  });
});
