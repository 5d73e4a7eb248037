/** A delivery is tried this often while its platform can't be worked with. */
export const MOST_ATTEMPTS = 5;

/** The pause before attempt n + 1, in milliseconds: doubles with every attempt that failed. */
export const pauseAfter = (attempt: number, firstPause: number): number =>
  firstPause * 2 ** (attempt - 1);
