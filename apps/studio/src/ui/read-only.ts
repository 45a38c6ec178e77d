import { createContext, useContext } from 'react';

const ReadOnlyContext = createContext(false);

/** Around controls that somebody may look at and not change. */
export const ReadOnly = ReadOnlyContext.Provider;

/** Whether the control one is may not be changed here: it then looks and acts like that. */
export const useIsReadOnly = (): boolean => useContext(ReadOnlyContext);
