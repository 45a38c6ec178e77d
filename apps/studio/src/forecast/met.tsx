import { type Forecast, figure } from '@velarium/core';

interface MetProps {
  readonly forecast: Forecast;
  readonly now: Forecast | undefined;
}

/** How many messages a visitor meets. */
export function Met({ forecast, now }: MetProps) {
  const most = Math.max(1, ...forecast.met);
  return (
    <section aria-label="Messages a visitor meets">
      <h2 className="pb-2 font-semibold">Messages a visitor meets</h2>
      <table className="w-full border-t border-line-strong">
        <thead className="text-left text-xs text-soft">
          <tr>
            <th scope="col" className="py-1 font-normal">
              Messages
            </th>
            <th scope="col" className="py-1 font-normal">
              Visitors
            </th>
            {now && (
              <th scope="col" className="py-1 text-right font-normal">
                As it runs now
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {forecast.met.map((visitors, messages) => (
            // Its place in the list is the number of messages.
            // biome-ignore lint/suspicious/noArrayIndexKey: see above.
            <tr key={messages} className="border-t border-line">
              <th scope="row" className="w-20 py-1 text-left font-normal">
                {messages === forecast.met.length - 1 ? `${messages} or more` : messages}
              </th>
              <td className="py-1">
                <span className="flex items-center gap-2">
                  {visitors > 0 && (
                    <span
                      aria-hidden="true"
                      className="h-3 flex-none border border-ink bg-ink/80 forced-color-adjust-none"
                      style={{ width: `${(visitors / most) * 60}%` }}
                    />
                  )}
                  <span className="tabular-nums">{figure(visitors)}</span>
                </span>
              </td>
              {now && <td className="py-1 text-right tabular-nums">{figure(now.met[messages] ?? 0)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
