// A quick answer follows what is typed and picked: the server says what it comes to.

import { asker, lastOne, show } from "./preview.js";

const PAUSE_MS = 200;

/**
 * Attaches the form of a quick answer, where there is one.
 * @param {ParentNode} root
 */
export function attach(root) {
  const form = root.querySelector("#quick-form");
  if (!form) return;
  const ask = asker(form, form);
  const answer = lastOne(async () => {
    const fresh = await ask();
    if (fresh) show(fresh, form);
  });
  let waiting = 0;
  form.addEventListener("input", ({ target }) => {
    if (target === form || target.name === "label" || target.name === "words") return;
    window.clearTimeout(waiting);
    waiting = window.setTimeout(answer, PAUSE_MS);
  });
}
