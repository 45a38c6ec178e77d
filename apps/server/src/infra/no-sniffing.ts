/** Nothing that is sent is ever to be taken for another type than the one it is sent as. Source: the Fetch standard. */
export const NO_SNIFFING = ['x-content-type-options', 'nosniff'] as const;
