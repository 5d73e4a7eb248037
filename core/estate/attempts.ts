/** A delivery is given up after this many faults that might have passed. */
export const MOST_ATTEMPTS = 5;

/**
 * A delivery is begun this often at the most, those included after which the platform asked for
 * patience: one that never has enough of it must not keep a rollout open for ever.
 */
export const MOST_BEGINNINGS = 100;

/** The pause before attempt n + 1, in milliseconds: doubles with every attempt that failed. */
export const pauseAfter = (attempt: number, firstPause: number): number =>
  firstPause * 2 ** (attempt - 1);

/**
 * The pause where a platform asked for one, in milliseconds: at least what it asked for, and spread
 * over as much again for each time it asked before, so that those who wait don't all come back at
 * once. `chance` is a number from 0 to 1.
 */
export const spreadWait = (asked: number, times: number, chance: number): number =>
  Math.ceil(asked + chance * Math.max(asked, 200) * Math.min(8, times));
