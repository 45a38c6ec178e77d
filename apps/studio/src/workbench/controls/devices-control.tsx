import type { Device, SiteSettings } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { isInterrupting } from '@velarium/core';
import { useSite } from '../../site/use-site.ts';
import { Switch } from '../../ui/switch.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';

const LABEL: Readonly<Record<Device, string>> = { desktop: 'Desktop', tablet: 'Tablet', mobile: 'Phone' };

const widthWords = (device: Device, { mobile, tablet }: SiteSettings['breakpoints']): string =>
  device === 'mobile'
    ? `Windows narrower than ${mobile} px.`
    : device === 'tablet'
      ? `From ${mobile} to ${tablet - 1} px, touched rather than pointed at.`
      : 'Every other window.';
const REASON =
  'Left out until you say so: search engines mark down pages whose messages interrupt phone visitors.';

/** On which devices it may open, with the reason beside the phones. */
export function DevicesControl() {
  const { editRule } = useWorkbenchStore().getState();
  const devices = useWorkbench((state) => state.document.rule.reach.devices);
  const format = useWorkbench((state) => state.document.message.format);
  const site = useSite(useWorkbench((state) => state.siteId));
  const set = (device: Device, isOn: boolean) =>
    editRule(
      (rule) => ({
        ...rule,
        reach: {
          ...rule.reach,
          devices: DEVICES.filter((one) => (one === device ? isOn : rule.reach.devices.includes(one))),
        },
      }),
      `device.${device}`,
    );
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-medium">Devices</legend>
      {DEVICES.map((device) => (
        <Switch
          key={device}
          label={LABEL[device]}
          isOn={devices.includes(device)}
          onChange={(isOn) => set(device, isOn)}
          hint={
            <>
              {site && widthWords(device, site.settings.breakpoints)}
              {device === 'mobile' && isInterrupting(format) && ` ${REASON}`}
            </>
          }
        />
      ))}
    </fieldset>
  );
}
