/** Whether two values say the same; what JSON cannot hold is not looked at. */
export const isSame = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
