import type { Finding } from '@velarium/core';

interface LaunchFindingsProps {
  readonly findings: readonly Finding[];
  /** Whether some of it is not known yet. */
  readonly isLooking: boolean;
  /** Leads to where it is mended, for whoever stands at the draft. */
  readonly onMend?: (part: Finding['part']) => void;
}

/** What the checks say of a launch. */
export function LaunchFindings({ findings, isLooking, onMend }: LaunchFindingsProps) {
  return (
    <>
      {isLooking && (
        <p role="status" className="text-soft">
          Looking at the site’s pages …
        </p>
      )}
      {findings.length === 0 && !isLooking ? (
        <p className="text-clear">✓ The checks found nothing to mend.</p>
      ) : (
        <ul aria-label="Checks" className="grid gap-px">
          {findings.map(({ code, severity, text, part }) => (
            <li key={`${code}${text}`} className="flex items-start gap-3 border-b border-line py-2">
              <span className={severity === 'stop' ? 'font-semibold text-halt' : 'font-semibold text-hold'}>
                {severity === 'stop' ? '■ Stops' : '◇ Look'}
              </span>
              <span className="flex-1">{text}</span>
              {onMend && (
                <button
                  type="button"
                  className="text-sail underline underline-offset-4"
                  onClick={() => onMend(part)}
                >
                  Mend
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
