// The trade's ids in the words of a shelf label.
const kinds: Record<string, string> = {
  "elbow-90": "elbow 90°",
  "elbow-45": "elbow 45°",
  "side-outlet-elbow": "side-outlet elbow",
  "side-outlet-tee": "side-outlet tee",
  "side-outlet-cross": "side-outlet cross",
  "reducing-coupling": "reducing coupling",
};

export const kindWords = (kind: string) => kinds[kind] ?? kind;

/** A nominal size as it is said: 3/4 in, 1 × 3/4 in. */
export const sizeWords = (size: string) => `${size.replace("x", " × ")} in`;

/** What becomes of a piece that is not straight. */
export const pathWords: Record<string, string> = { sprung: "sprung", bent: "bent by heat after cutting" };

/** How exactly a piece is cut. */
export const classWords: Record<string, string> = {
  "": "exact",
  matched: "a matched set",
  trim: "cut long, trim to fit",
  rough: "rough",
  "on-frame": "measured on the frame",
};
