import type { Program } from './compile.ts';

/** Whether the pattern matches anywhere in the text. Time: length of the text times length of the program. */
export function matches(program: Program, text: string): boolean {
  const characters = Array.from(text, (character) => character.codePointAt(0) as number);
  let now = new Set<number>();
  for (let at = 0; at <= characters.length; at++) {
    // A match may begin at every character.
    const next = new Set<number>();
    if (enter(program, now, 0, at, characters.length)) return true;
    const character = characters[at];
    if (character === undefined) return false;
    for (const position of now) {
      const instruction = program[position];
      if (instruction?.[0] !== 'set' || !isInside(instruction[2], character) === !instruction[1]) continue;
      if (enter(program, next, position + 1, at + 1, characters.length)) return true;
    }
    now = next;
  }
  return false;
}

/** Adds a position and all that can be reached from it without a character; true when a match is among them. */
function enter(program: Program, set: Set<number>, from: number, at: number, length: number): boolean {
  const waiting = [from];
  for (let position = waiting.pop(); position !== undefined; position = waiting.pop()) {
    if (set.has(position)) continue;
    set.add(position);
    const instruction = program[position];
    if (instruction?.[0] === 'match') return true;
    if (instruction?.[0] === 'split') waiting.push(instruction[1], instruction[2]);
    if ((instruction?.[0] === 'start' && at === 0) || (instruction?.[0] === 'end' && at === length)) {
      waiting.push(position + 1);
    }
  }
  return false;
}

function isInside(ranges: readonly number[], character: number): boolean {
  for (let n = 0; n < ranges.length; n += 2) {
    if (character >= (ranges[n] as number) && character <= (ranges[n + 1] as number)) return true;
  }
  return false;
}
