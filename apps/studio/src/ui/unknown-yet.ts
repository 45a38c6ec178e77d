/**
 * Stands for a name or a figure that is still asked for, or cannot be had: nobody is told that something is gone, or is none, which
 * is only not known.
 */
export const UNKNOWN_YET = '…';
