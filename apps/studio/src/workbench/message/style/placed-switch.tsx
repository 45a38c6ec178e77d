import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench } from '../../store.ts';
import { useEditMessage } from '../use-message.ts';
import { Said } from './said.tsx';
import type { Styling } from './use-styling.ts';

type SwitchKey = 'backdropCloses' | 'holdsPage' | 'pushesPage' | 'isSticky';

/** Something the message says for all devices, and may say otherwise for the one that is being set. */
export function PlacedSwitch({
  styling,
  of,
  isOpposite = false,
  ...words
}: {
  styling: Styling;
  of: SwitchKey;
  label: string;
  hint?: string;
  /** Worded the other way round than it is kept. */
  isOpposite?: boolean;
}) {
  const edit = useEditMessage();
  const ofAll = useWorkbench((state) => state.document.message[of]);
  const value = styling.said[of] ?? ofAll;
  return (
    <Said styling={styling} of={[of]}>
      <Switch
        {...words}
        isOn={value !== isOpposite}
        onChange={(isOn) => {
          const next = isOn !== isOpposite;
          if (styling.scope === 'all') edit({ [of]: next }, of);
          else styling.set(of, next);
        }}
      />
    </Said>
  );
}
