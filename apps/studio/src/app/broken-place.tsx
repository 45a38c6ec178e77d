import { useRouteError } from 'react-router';
import { Button } from '../ui/button.tsx';

/** A chunk of an older build is gone once a newer one is served; only loading the page anew finds the new one. */
const isOldBuild = (error: unknown): boolean =>
  error instanceof TypeError && /dynamically imported module|module script/i.test(error.message);

/**
 * Stands where a place could not be drawn. The frame around it, with the other places, goes on working, and what was
 * made is saved already.
 */
export function BrokenPlace() {
  const isOld = isOldBuild(useRouteError());
  return (
    <div role="alert" className="mx-auto grid max-w-md justify-items-center gap-3 px-5 py-20 text-center">
      <h1 className="font-serif text-2xl">
        {isOld ? 'Velarium has been updated' : 'This place could not be drawn'}
      </h1>
      <p className="text-soft">
        {isOld
          ? 'Load the page again to go on with the new version. What you made is saved.'
          : 'The other places still work, and what you made is saved. Load the page again; if it comes back, tell whoever runs this installation what you did last.'}
      </p>
      <Button onClick={() => window.location.reload()}>Load the page again</Button>
    </div>
  );
}
