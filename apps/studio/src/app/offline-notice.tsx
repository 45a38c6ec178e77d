import { useSyncExternalStore } from 'react';

const subscribe = (notify: () => void) => {
  addEventListener('online', notify);
  addEventListener('offline', notify);
  return () => {
    removeEventListener('online', notify);
    removeEventListener('offline', notify);
  };
};

const useIsOnline = (): boolean => useSyncExternalStore(subscribe, () => navigator.onLine);

export function OfflineNotice() {
  if (useIsOnline()) return null;
  return (
    <p role="status" className="relative z-40 bg-hold px-5 py-2 text-center text-sheet">
      You are offline. What you change of a draft is kept here and saved when the connection is back; anything
      else is to be done again then.
    </p>
  );
}
