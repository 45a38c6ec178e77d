import type { CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { startingDocument, TEMPLATES } from '../templates/templates.ts';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { contrastRatio } from './contrast.ts';
import { launchFindings } from './launch.ts';

describe('contrast', () => {
  it.each([
    // WCAG 2.2: black on white is 21 to 1; the two greys either side of 4.5 to 1 are common practice.
    ['#000000', '#ffffff', 21],
    ['#777777', '#ffffff', 4.48],
    ['#767676', '#ffffff', 4.54],
    ['#ffffff', '#ffffff', 1],
  ])('%s on %s', (a, b, ratio) => {
    expect(contrastRatio(a, b)).toBeCloseTo(ratio, 2);
    expect(contrastRatio(b, a)).toBe(contrastRatio(a, b));
  });
});

const ready: CampaignDocument = {
  message: plainMessage,
  rule: plainRule,
};
const reach = (change: Partial<CampaignDocument['rule']['reach']>): CampaignDocument => ({
  ...ready,
  rule: { ...ready.rule, reach: { ...ready.rule.reach, ...change } },
});
const blocks = (...list: CampaignDocument['message']['steps'][number]['blocks']): CampaignDocument => ({
  ...ready,
  message: { ...plainMessage, steps: [{ id: 'first', role: 'first', blocks: list }] },
});
const title = { id: 't', kind: 'heading' as const, text: 'Hello' };

describe('the checks before publishing', () => {
  it('find nothing on what is ready', () => {
    expect(launchFindings(ready)).toEqual([]);
  });

  it.each<[code: string, severity: 'stop' | 'warn', document: CampaignDocument]>([
    ['pages.nowhere', 'stop', reach({ pages: { include: [], exclude: [] } })],
    [
      'pages.nowhere',
      'stop',
      reach({ pages: { include: [{ kind: 'every' }], exclude: [{ kind: 'every' }] } }),
    ],
    ['pages.pattern', 'stop', reach({ pages: { include: [{ kind: 'regex', pattern: '(' }], exclude: [] } })],
    ['devices.none', 'stop', reach({ devices: [] })],
    ['devices.interrupting', 'warn', reach({ devices: ['mobile'] })],
    ['message.empty', 'stop', blocks({ ...title, text: '  ' })],
    [
      'button.label',
      'stop',
      blocks(title, { id: 'b', kind: 'button', label: '', action: { kind: 'close' } }),
    ],
    [
      'button.address',
      'warn',
      blocks(title, {
        id: 'b',
        kind: 'button',
        label: 'Go',
        action: { kind: 'link', address: '', newTab: false },
      }),
    ],
    [
      'form.consent',
      'warn',
      blocks(title, {
        id: 'f',
        kind: 'form',
        fields: [{ id: 'email', kind: 'email', label: 'Mail', placeholder: '', required: true }],
        consentText: '',
        submitLabel: 'Send',
      }),
    ],
    [
      'contrast',
      'warn',
      { ...ready, message: { ...plainMessage, palette: { ...plainMessage.palette, ink: '#bbbbbb' } } },
    ],
  ])('%s: %s', (code, severity, document) => {
    expect(launchFindings(document)).toEqual([expect.objectContaining({ code, severity })]);
  });
});

describe.each(TEMPLATES.map((template) => [template.name, template] as const))(
  'template %s',
  (_name, template) => {
    it('keeps to the contract', () => {
      expect(campaignDocumentSchema.parse(startingDocument(template))).toEqual(startingDocument(template));
    });
    it('lacks nothing but its pages', () => {
      expect(launchFindings(startingDocument(template)).map(({ code }) => code)).toEqual(['pages.nowhere']);
    });
  },
);
