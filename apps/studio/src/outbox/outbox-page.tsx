import { useParams } from 'react-router';
import { useCanEdit } from '../app/use-session.ts';
import { EmptyState } from '../ui/states.tsx';
import { Tabs } from '../ui/tabs.tsx';
import { ConnectionsSection } from './connections-section.tsx';
import { DeliveriesSection } from './deliveries-section.tsx';
import { SendingSection } from './sending-section.tsx';

/** Everything that went or will go out, to whom it goes by itself, and how mail is sent. */
export function OutboxPage() {
  const { siteId = '' } = useParams();
  const canRead = useCanEdit();
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16">
      <h1 className="pt-7 pb-4 font-serif text-3xl">Outbox</h1>
      {canRead ? (
        <Tabs
          label="Outbox"
          tabs={[
            { id: 'out', label: 'What goes out', content: <DeliveriesSection siteId={siteId} /> },
            { id: 'connections', label: 'Connections', content: <ConnectionsSection siteId={siteId} /> },
            { id: 'sending', label: 'Sending', content: <SendingSection /> },
          ]}
        />
      ) : (
        <EmptyState title="For owners and editors" drawing="key">
          What goes out says who answered, so your role does not read it.
        </EmptyState>
      )}
    </div>
  );
}
