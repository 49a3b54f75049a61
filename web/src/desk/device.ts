const kept = "sturdyelbow.device";

/** What a device is, as far as a browser tells: its name in the record begins with it. */
function kindOf(agent: string): string {
  const named: [RegExp, string][] = [
    [/iPad/i, "iPad"],
    [/iPhone/i, "iPhone"],
    [/Android.*Mobile/i, "Android phone"],
    [/Android|Tablet/i, "Android tablet"],
    [/CrOS/i, "Chromebook"],
    [/Windows/i, "Windows computer"],
    [/Macintosh/i, "Mac"],
    [/Linux/i, "Linux computer"],
    [/Mobi/i, "Phone"],
  ];
  return named.find(([is]) => is.test(agent))?.[1] ?? "Computer";
}

/** What this device calls itself in the record: as it was named here, or what it is and two letters that tell it from others like it. */
export function deviceName(): string {
  const had = localStorage.getItem(kept);
  if (had) return had;
  const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ";
  const [a = 0, b = 0] = crypto.getRandomValues(new Uint8Array(2));
  const name = `${kindOf(navigator.userAgent)} ${letters[a % letters.length]}${letters[b % letters.length]}`;
  localStorage.setItem(kept, name);
  return name;
}

/** Gives this device another name, by which it tells what is done on it from now on. */
export const nameDevice = (name: string) => localStorage.setItem(kept, name);

let made = 0;

/** An id that nothing else has, and that sorts after those this window made before. It works without a secure page, too. */
export function newId(): string {
  const random = [...crypto.getRandomValues(new Uint8Array(8))].map((b) => b.toString(16).padStart(2, "0")).join("");
  return `${Date.now().toString(36)}-${(made++).toString(36).padStart(3, "0")}-${random}`;
}
