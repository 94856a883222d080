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

/** Keeps the count beside Save at what is filled in. */
function count(form) {
  const told = form.querySelector(".read-count");
  if (!told) return;
  const filled = [...form.querySelectorAll(".plan-walk [data-walk]")].filter((stop) => stop.value.trim() !== "");
  told.textContent = told.textContent.replace(/^\d+/, String(filled.length));
}

/**
 * Makes Enter move on in the walk instead of sending the form, and counts what is read.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const walk of root.querySelectorAll(".walk")) {
    walk.addEventListener("input", () => count(walk.closest("form")));
    count(walk.closest("form"));
  }
  for (const input of root.querySelectorAll(".walk input")) {
    input.addEventListener("keydown", (event) => {
      if (event.key !== "Enter" || event.isComposing) return;
      event.preventDefault();
      goOn(input);
    });
  }
}
