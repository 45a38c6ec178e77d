import { useEffect } from 'react';

/** Says in the browser's own title what is on screen, from the particular to the whole; parts that are not known yet are left out. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), 'Velarium'].join(' · ');
  useEffect(() => {
    document.title = title;
  }, [title]);
}
