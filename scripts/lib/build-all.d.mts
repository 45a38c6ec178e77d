export function buildAll(say: (words: string) => void): Promise<void>;
