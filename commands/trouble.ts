/** Something that the person at the terminal can mend: one line that says what happened and what to do. */
export class Trouble extends Error {
  override name = "Trouble";
}

export const say = (line: string): void => console.error(`livery: ${line}`);
