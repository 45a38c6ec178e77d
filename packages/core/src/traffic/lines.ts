/** Letters kept of one line: enough to see that it is too long. */
const KEPT = 65_536;

/** Cuts a text that comes in pieces into lines; of one without an end only so much is kept. */
export function createLines(onLine: (line: string) => void) {
  let rest = '';
  return {
    add(piece: string): void {
      const lines = piece.split('\n');
      const last = lines.pop() ?? '';
      for (const line of lines) {
        const whole = rest + line;
        rest = '';
        onLine(whole.endsWith('\r') ? whole.slice(0, -1) : whole);
      }
      if (rest.length < KEPT) rest += last.slice(0, KEPT);
    },
    end(): void {
      if (rest !== '') onLine(rest);
      rest = '';
    },
  };
}
