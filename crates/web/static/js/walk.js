// Enter goes round the vehicle, one corner to the next.

import { reveal } from "./one_corner.js";

/** @param {HTMLInputElement} input */
export function goOn(input) {
  const form = input.form;
  const stops = [...form.querySelectorAll("[data-walk]")];
  stops.sort((a, b) => Number(a.dataset.walk) - Number(b.dataset.walk));
  // A second reading has no place of its own: from it the walk goes on after its corner.
  const own = input.dataset.walk ?? input.closest(".corner")?.querySelector("[data-walk]")?.dataset.walk;
  const next = stops.find((stop) => Number(stop.dataset.walk) > Number(own));
  const target = next ?? form.querySelector(".send button");
  reveal(target);
  target.focus();
  if (next) next.select();
  target.scrollIntoView({ block: "center" });
}

/**
 * Makes Enter move on in the walk instead of sending the form.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const input of root.querySelectorAll(".walk input")) {
    input.addEventListener("keydown", (event) => {
      if (event.key !== "Enter" || event.isComposing) return;
      event.preventDefault();
      goOn(input);
    });
  }
}
