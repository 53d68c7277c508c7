/** Whether a pointer is pressed: what moves the page under it would swallow the press. */
let down = false;
window.addEventListener("pointerdown", () => (down = true), true);
for (const end of ["pointerup", "pointercancel"] as const) window.addEventListener(end, () => (down = false), true);

/** At once, or as soon as the press that is going on has reached what it was meant for. */
export function afterPress(then: () => void) {
  if (down) window.addEventListener("pointerup", () => setTimeout(then, 0), { once: true });
  else then();
}
