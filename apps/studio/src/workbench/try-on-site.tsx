import { useState } from 'react';
import { openPreview } from '../api/queries.ts';
import { useSite } from '../site/use-site.ts';
import { Button } from '../ui/button.tsx';
import { Popover } from '../ui/popover.tsx';
import { tellProblem } from '../ui/toast.tsx';
import { useCoverage } from './controls/pages/use-coverage.ts';
import { PreviewLinkDialog } from './preview-link-dialog.tsx';
import { useWorkbench } from './store.ts';
import { WhyDialog } from './why-dialog.tsx';

const SHOWN = 10;

/**
 * Opens a page of the real site with this draft on it, among what visitors meet, and a panel that says why it shows or
 * does not. Nothing of it is counted, and no visitor's caps are spent.
 */
export function TryOnSite({ flush }: { readonly flush: () => Promise<void> }) {
  const siteId = useWorkbench((state) => state.siteId);
  const site = useSite(siteId);
  const id = useWorkbench((state) => state.id);
  const { covered, pages, isKnown } = useCoverage();
  const [isLinking, setLinking] = useState(false);
  const [isAsking, setAsking] = useState(false);
  if (!site) return null;
  const origin = site.origins[0] ?? '';
  const offered = covered.length > 0 ? covered : pages;

  const open = async (path: string) => {
    // Opened at once, while the click still allows it; the address follows when the leave to preview is there.
    const tab = window.open('', '_blank');
    try {
      await flush();
      const { token } = await openPreview(siteId);
      if (tab) tab.location.href = `${origin}${path}#velarium-preview=${token}~${id}`;
    } catch (error) {
      tab?.close();
      tellProblem(error);
    }
  };
  return (
    <>
      <Popover label="Try it on the site" trigger={<Button>Try it</Button>}>
        <p className="mb-2 max-w-72 text-soft">
          {covered.length > 0 || !isKnown
            ? 'Opens a page with this draft on it, and says why it shows or not. Nothing is counted.'
            : 'Its rule covers no page yet; open any page to see what it says there.'}
        </p>
        <ul className="grid max-h-72 gap-px overflow-y-auto">
          {offered.slice(0, SHOWN).map(({ path, title }) => (
            <li key={path}>
              <button
                type="button"
                className="grid w-full rounded px-2 py-1 text-left hover:bg-sail-wash"
                onClick={() => void open(path)}
              >
                <span>{title}</span>
                <span className="text-xs text-soft">{path}</span>
              </button>
            </li>
          ))}
        </ul>
        {offered.length > SHOWN && (
          <p className="mt-2 text-xs text-soft">and {offered.length - SHOWN} more pages</p>
        )}
        <div className="mt-2 border-t border-line pt-2">
          <Button tone="quiet" onClick={() => setLinking(true)}>
            A link for somebody else …
          </Button>
          <Button tone="quiet" onClick={() => setAsking(true)}>
            Why did it not show? …
          </Button>
        </div>
      </Popover>
      {isAsking && <WhyDialog campaignId={id} origin={origin} onClose={() => setAsking(false)} />}
      {isLinking && (
        <PreviewLinkDialog
          siteId={siteId}
          origin={origin}
          campaign={id}
          pages={offered}
          flush={flush}
          onClose={() => setLinking(false)}
        />
      )}
    </>
  );
}
