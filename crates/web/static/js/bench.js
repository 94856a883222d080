// Shows a pack under the load that the slider is at, and as its leaves are typed: the server works it out and draws it.

import { asker, lastOne, show } from "./preview.js";

const PAUSE_MS = 150;

/**
 * Asks for the picture of the form as it stands. While only the load changes, only what the load changes is asked for.
 */
function painter(place, form) {
  const ask = asker(place, form);
  const paint = async (part) => {
    const fresh = await ask(place.dataset.load ? { part, load: place.dataset.load } : { part });
    if (fresh) show(fresh, form);
  };
  return lastOne(paint, (waiting, part) => (waiting === "all" ? waiting : part));
}

/**
 * Attaches the bench, where there is one.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const button of root.querySelectorAll("[data-print]")) button.addEventListener("click", () => window.print());
  const place = root.querySelector("#bench-picture[data-preview]");
  const form = root.querySelector("#bench-form");
  const slider = root.querySelector("#bench-load");
  if (!place || !form || !slider) return;
  const said = root.querySelector("#bench-load-said");
  const picks = [...root.querySelectorAll("a[data-load]")];
  const paint = painter(place, form);
  const at = (load) => {
    for (const pick of picks) {
      if (pick.dataset.load === load) pick.setAttribute("aria-current", "true");
      else pick.removeAttribute("aria-current");
    }
    // The slider goes in steps; a named load is taken to the pound.
    place.dataset.load = load;
    said.textContent = load === "loose" ? "loose, unbolted" : `${load} ${slider.dataset.unit}`;
    paint("load");
  };
  const first = picks.find((pick) => pick.hasAttribute("aria-current"));
  if (first) place.dataset.load = first.dataset.load;
  slider.addEventListener("input", () => at(slider.value));
  for (const pick of picks) {
    pick.addEventListener("click", (event) => {
      event.preventDefault();
      if (pick.dataset.load !== "loose") slider.value = pick.dataset.load;
      at(pick.dataset.load);
    });
  }
  let waiting = 0;
  form.addEventListener("input", (event) => {
    if (event.target === form || event.target === slider) return;
    window.clearTimeout(waiting);
    waiting = window.setTimeout(() => paint("all"), PAUSE_MS);
  });
}
