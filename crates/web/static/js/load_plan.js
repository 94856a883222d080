// Moves the things of a load plan by pointer or arrow keys, and shows what the server makes of the plan meanwhile.

const PAUSE_MS = 120;
/** One press of an arrow key, in metres; with Shift, a tenth of it. */
const STEP_M = 0.0254 * 2;

/**
 * What an arrow key moves a thing by, in metres: along (rearward), across (to the right) or up.
 * @param {string} key
 * @param {boolean} fromAbove whether the thing has the focus in the view from above
 */
export function nudge(key, fromAbove, fine) {
  const by = fine ? STEP_M / 4 : STEP_M;
  const upright = fromAbove ? "across" : "up";
  const sign = fromAbove ? 1 : -1;
  return {
    ArrowLeft: { along: -by },
    ArrowRight: { along: by },
    ArrowUp: { [upright]: -by * sign },
    ArrowDown: { [upright]: by * sign },
  }[key];
}

/** Asks for the picture of the form as it stands; only the last answer asked for is shown. */
function painter(place, form) {
  let asked = 0;
  return async (move = {}) => {
    const mine = ++asked;
    const body = new URLSearchParams(new FormData(form));
    for (const [name, value] of Object.entries(move)) body.set(name, String(value));
    const answer = await fetch(place.dataset.loadPicture, { method: "POST", body }).catch(() => null);
    if (!answer?.ok || answer.redirected || mine !== asked) return;
    const focused = document.activeElement?.closest("[data-handle]");
    const open = [...place.querySelectorAll("details")].map((details) => details.open);
    place.innerHTML = await answer.text();
    place.querySelectorAll("details").forEach((details, index) => (details.open = open[index] ?? false));
    for (const moved of place.querySelectorAll("data.moved")) {
      const field = form.elements.namedItem(moved.dataset.name);
      if (field) field.value = moved.value;
    }
    if (focused) {
      const view = focused.classList.contains("plan-top") ? "plan-top" : "plan-side";
      const svg = focused.ownerSVGElement.id;
      document.querySelector(`#${svg} .${view}[data-handle="${focused.dataset.handle}"]`)?.focus();
    }
    if (place.querySelector("data.moved")) form.dispatchEvent(new Event("input"));
  };
}

function drag(place, paint) {
  let held = null;
  place.addEventListener("pointerdown", (event) => {
    const handle = event.target.closest("[data-handle]");
    if (!handle) return;
    event.preventDefault();
    handle.focus();
    held = { handle, x: event.clientX, y: event.clientY, pointer: event.pointerId };
    place.setPointerCapture(event.pointerId);
  });
  place.addEventListener("pointermove", (event) => {
    if (held?.pointer !== event.pointerId) return;
    const scale = held.handle.ownerSVGElement.getScreenCTM().a;
    const [dx, dy] = [(event.clientX - held.x) / scale, (event.clientY - held.y) / scale];
    held.handle.setAttribute("transform", `translate(${dx} ${dy})`);
  });
  const drop = (event) => {
    if (held?.pointer !== event.pointerId) return;
    const svg = held.handle.ownerSVGElement;
    const perMetre = Number(svg.dataset.perMetre) * svg.getScreenCTM().a;
    const [along, down] = [(event.clientX - held.x) / perMetre, (event.clientY - held.y) / perMetre];
    const upright = held.handle.classList.contains("plan-top") ? { across: down } : { up: -down };
    if (Math.hypot(along, down) > 0.005) paint({ move: held.handle.dataset.handle, along, ...upright });
    held = null;
  };
  place.addEventListener("pointerup", drop);
  place.addEventListener("pointercancel", () => {
    held?.handle.removeAttribute("transform");
    held = null;
  });
}

/**
 * Attaches the load plan, where there is one.
 * @param {ParentNode} root
 */
export function attach(root) {
  const place = root.querySelector("[data-load-picture]");
  const form = root.querySelector("#load-form");
  if (!place || !form) return;
  const paint = painter(place, form);
  let waiting = 0;
  const soon = () => {
    window.clearTimeout(waiting);
    waiting = window.setTimeout(paint, PAUSE_MS);
  };
  form.addEventListener("input", (event) => event.target !== form && soon());
  place.addEventListener("change", (event) => event.target.name === "shown" && paint());
  place.addEventListener("keydown", (event) => {
    const handle = event.target.closest("[data-handle]");
    const by = handle && nudge(event.key, handle.classList.contains("plan-top"), event.shiftKey);
    if (!by) return;
    event.preventDefault();
    paint({ move: handle.dataset.handle, ...by });
  });
  drag(place, paint);
}
