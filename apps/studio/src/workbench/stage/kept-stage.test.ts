import { afterEach, expect, it, vi } from 'vitest';
import { keepStage, keptStage } from './kept-stage.ts';

afterEach(() => vi.unstubAllGlobals());

it('what one tab chooses of the stage leaves alone what another has chosen meanwhile', () => {
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => kept.set(name, value),
  });
  expect(keptStage()).toEqual({ ground: 'page', zoom: 'fit' });
  keepStage({ ground: 'plain' });
  keepStage({ zoom: 'real' });
  expect(keptStage()).toEqual({ ground: 'plain', zoom: 'real' });
  kept.set('velarium:stage-zoom', 'of an earlier version');
  expect(keptStage()).toEqual({ ground: 'plain', zoom: 'fit' });
});

it('a browser that keeps nothing shows a page behind, as large as there is room', () => {
  const refuse = () => {
    throw new DOMException('no', 'SecurityError');
  };
  vi.stubGlobal('localStorage', { getItem: refuse, setItem: refuse });
  keepStage({ ground: 'plain', zoom: 'real' });
  expect(keptStage()).toEqual({ ground: 'page', zoom: 'fit' });
});
