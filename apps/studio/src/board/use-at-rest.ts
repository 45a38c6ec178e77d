import { useEffect, useState } from 'react';

const REST_MS = 2000;

/** Whether the Board has come to rest: what nobody waits for is worked out then. */
export function useAtRest(): boolean {
  const [isAtRest, setAtRest] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setAtRest(true), REST_MS);
    return () => clearTimeout(timer);
  }, []);
  return isAtRest;
}
