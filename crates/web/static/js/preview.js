// The picture of a form being worked on: the form is sent as it stands, with what was done to it, and the server answers with the
// parts of the page that differ. Nothing is saved.
//
// An answer of 204 says that something typed cannot be read yet: the picture stays, and says that it is of before.

/**
 * Asks for the picture of a form.
 * @param {HTMLElement} place where the picture stands, with the address to ask at as `data-preview`
 * @param {HTMLFormElement} form
 * @returns {(extra?: object) => Promise<Document | null>} what was drawn, or nothing
 */
export function asker(place, form) {
  return async (extra = {}) => {
    const body = new URLSearchParams(new FormData(form));
    for (const [name, value] of Object.entries(extra)) body.set(name, String(value));
    const answer = await fetch(place.dataset.preview, { method: "POST", body }).catch(() => null);
    place.classList.toggle("is-old", answer?.status === 204);
    if (answer?.status !== 200 || answer.redirected) return null;
    return new DOMParser().parseFromString(await answer.text(), "text/html");
  };
}

/**
 * Puts every part that was drawn in the place of the one before; what was open is open again, and fields that the server has
 * changed hold what it put there.
 * @param {Document} fresh
 * @param {HTMLFormElement} form
 */
export function show(fresh, form) {
  for (const now of fresh.querySelectorAll("[data-part]")) {
    const place = document.getElementById(now.id);
    if (!place) continue;
    const open = [...place.querySelectorAll("details")].map((details) => details.open);
    place.replaceChildren(...now.childNodes);
    place.querySelectorAll("details").forEach((details, index) => (details.open = open[index] ?? false));
  }
  const changed = [...fresh.querySelectorAll("data[data-field]")];
  for (const { dataset, value } of changed) {
    const field = form.elements.namedItem(dataset.field);
    if (field) field.value = value;
  }
  if (changed.length > 0) form.dispatchEvent(new Event("input"));
}

/**
 * Does one thing at a time: what is asked for meanwhile is done once that is done, and of several only the last.
 * @template T
 * @param {(what: T) => Promise<void>} work
 * @param {(waiting: T, asked: T) => T} [both] what stands for two that wait
 * @returns {(what: T) => Promise<void>}
 */
export function lastOne(work, both = (_, asked) => asked) {
  let working = false;
  let waiting = [];
  return async function ask(what) {
    if (working) {
      waiting = [waiting.length > 0 ? both(waiting[0], what) : what];
      return;
    }
    working = true;
    await work(what);
    working = false;
    const [next] = waiting;
    const more = waiting.length > 0;
    waiting = [];
    if (more) await ask(next);
  };
}
