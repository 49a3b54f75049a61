/** The nominal sizes, as they are chosen from. */
export const pipeSizes = ["1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "4"].map((s) => [s, `${s} in`] as const);
