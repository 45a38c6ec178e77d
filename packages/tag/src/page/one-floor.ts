import type { SiteSettings } from '@velarium/contract';
import type { Memory, Now, PageView } from '@velarium/core/decide';
import { on } from '../observe/on.ts';
import { pageAround } from './page-around.ts';

/** One document of several on one screen. */
interface Standing {
  readonly open: Set<string>;
  opened(id: string): void;
  gone(id: string): void;
}
/** All of one screen; kept at the window around them. */
type Floor = Set<Standing>;

let here: Standing | undefined;

/**
 * Lets the documents of one page, its frames among them, stand under one floor: what opens in one is open in all. Told and
 * asked without a wait, so that between two nothing can slip in.
 */
export function underOneFloor(
  site: SiteSettings,
  view: PageView,
  memoryNow: () => Memory,
  now: () => Now,
  plan: () => void,
): PageView {
  const around = pageAround() as { velariumFloor?: Floor } | undefined;
  if (!site.worksInFrames || !around) return view;
  around.velariumFloor ??= new Set();
  const floor = around.velariumFloor;
  const others = () => [...floor].filter((one) => one !== here);
  const leave = () => {
    if (here && floor.delete(here)) for (const id of here.open) for (const other of floor) other.gone(id);
  };
  // Another view of this document takes the place of the one before.
  if (here) {
    leave();
    here.open.clear();
  } else {
    on(window, ['pagehide'], leave);
    // One that comes back from the cache is as it was.
    on(window, ['pageshow'], () => {
      if (!here || floor.has(here)) return;
      floor.add(here);
      for (const id of here.open) for (const other of others()) other.opened(id);
    });
  }
  here = {
    open: new Set(),
    opened: (id) => view.onOpened(id),
    gone(id) {
      view.onGone(id, memoryNow(), now());
      plan();
    },
  };
  for (const other of floor) for (const id of other.open) view.onOpened(id);
  floor.add(here);
  const { open } = here;
  return {
    ...view,
    onOpened(id) {
      view.onOpened(id);
      open.add(id);
      for (const other of others()) other.opened(id);
    },
    onGone(id, memory, at) {
      view.onGone(id, memory, at);
      // What went with its view has been told.
      if (open.delete(id)) for (const other of others()) other.gone(id);
    },
  };
}
