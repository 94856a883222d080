// Moves the things of a load plan by pointer or arrow keys, and shows what the server makes of the plan meanwhile.

import { asker, show } from "./preview.js";

const PAUSE_MS = 120;
/** One press of an arrow key, in metres; with Shift, a quarter of it. */
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

/**
 * Asks for the picture of the form as it stands, one question after the other: each move starts where the last one ended.
 * While a thing is held under the pointer the picture stays as it is.
 */
function painter(place, form) {
  const ask = asker(place, form);
  let last = Promise.resolve();
  const move = async (by) => {
    const fresh = await ask(by);
    if (fresh && (by.move || !place.dataset.held)) keepingFocus(() => show(fresh, form));
  };
  let peeking = false;
  return {
    paint: (by = {}) => (last = last.then(() => move(by))),
    /** Shows what a thing would weigh on the axles where it is held now; one question at a time, and nothing is moved. */
    peek: async (by) => {
      if (peeking) return;
      peeking = true;
      const fresh = await ask(by);
      if (fresh && place.dataset.held) showFigures(place, fresh);
      peeking = false;
    },
  };
}

/** Puts only the figures of a picture in place: the thing under the pointer stays under it. */
function showFigures(place, fresh) {
  for (const part of [".figures", ".cases tbody"]) {
    const [old, now] = [place.querySelector(part), fresh.querySelector(part)];
    if (old && now) old.replaceWith(now);
  }
  const now = [...fresh.querySelectorAll(".plan-load")];
  place.querySelectorAll(".plan-load").forEach((text, index) => (text.textContent = now[index]?.textContent ?? text.textContent));
}

/** Draws anew; the thing that had the focus has it again. */
function keepingFocus(draw) {
  const focused = document.activeElement?.closest("[data-handle]");
  const view = focused?.classList.contains("plan-top") ? "plan-top" : "plan-side";
  const again = focused && `#${focused.ownerSVGElement.id} .${view}[data-handle="${focused.dataset.handle}"]`;
  draw();
  if (again) document.querySelector(again)?.focus();
}

function drag(place, { paint, peek }) {
  let held = null;
  /** Where the thing is held, in metres from where it was taken up. */
  const carried = (event) => {
    const svg = held.handle.ownerSVGElement;
    const perMetre = Number(svg.dataset.perMetre) * svg.getScreenCTM().a;
    const [along, down] = [(event.clientX - held.x) / perMetre, (event.clientY - held.y) / perMetre];
    const upright = held.handle.classList.contains("plan-top") ? { across: down } : { up: -down };
    return { move: held.handle.dataset.handle, along, ...upright };
  };
  place.addEventListener("pointerdown", (event) => {
    const handle = event.target.closest("[data-handle]");
    if (!handle) return;
    event.preventDefault();
    handle.focus();
    held = { handle, x: event.clientX, y: event.clientY, pointer: event.pointerId };
    place.dataset.held = "yes";
    place.setPointerCapture(event.pointerId);
  });
  place.addEventListener("pointermove", (event) => {
    if (held?.pointer !== event.pointerId) return;
    const scale = held.handle.ownerSVGElement.getScreenCTM().a;
    const [dx, dy] = [(event.clientX - held.x) / scale, (event.clientY - held.y) / scale];
    held.handle.setAttribute("transform", `translate(${dx} ${dy})`);
    peek(carried(event));
  });
  const drop = (event) => {
    if (held?.pointer !== event.pointerId) return;
    const move = carried(event);
    const far = Math.hypot(move.along, move.across ?? move.up);
    if (far > 0.005) paint(move);
    held = null;
    delete place.dataset.held;
  };
  place.addEventListener("pointerup", drop);
  place.addEventListener("pointercancel", () => {
    held?.handle.removeAttribute("transform");
    held = null;
    delete place.dataset.held;
  });
}

/**
 * Attaches the load plan, where there is one.
 * @param {ParentNode} root
 */
export function attach(root) {
  const place = root.querySelector("#load-picture[data-preview]");
  const form = root.querySelector("#load-form");
  if (!place || !form) return;
  const painting = painter(place, form);
  const { paint } = painting;
  let waiting = 0;
  const soon = () => {
    window.clearTimeout(waiting);
    waiting = window.setTimeout(() => paint(), PAUSE_MS);
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
  drag(place, painting);
}
