const kept = "sturdyelbow.device";

/** What this device calls itself in the record: what it is, and two letters that tell it from others like it. */
export function deviceName(): string {
  const had = localStorage.getItem(kept);
  if (had) return had;
  const kind = /iPad|Tablet/i.test(navigator.userAgent)
    ? "Tablet"
    : /Mobi|Android|iPhone/i.test(navigator.userAgent)
      ? "Phone"
      : "Computer";
  const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ";
  const [a = 0, b = 0] = crypto.getRandomValues(new Uint8Array(2));
  const name = `${kind} ${letters[a % letters.length]}${letters[b % letters.length]}`;
  localStorage.setItem(kept, name);
  return name;
}

let made = 0;

/** An id that nothing else has, and that sorts after those this window made before. It works without a secure page, too. */
export function newId(): string {
  const random = [...crypto.getRandomValues(new Uint8Array(8))].map((b) => b.toString(16).padStart(2, "0")).join("");
  return `${Date.now().toString(36)}-${(made++).toString(36).padStart(3, "0")}-${random}`;
}
