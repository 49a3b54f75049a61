/** A ref for what has just come to be there, a form or a message: it is brought into view, as far as it has to be. */
export function intoView(el: HTMLElement | null) {
  if (!el) return;
  // once it is laid out, and without taking the eye farther than it must
  requestAnimationFrame(() =>
    el.scrollIntoView({ block: "nearest", behavior: matchMedia("(prefers-reduced-motion: reduce)").matches ? "auto" : "smooth" }),
  );
}
