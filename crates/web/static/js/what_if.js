// Parts and loads tried by slider or key: each step writes into its field, and the server says where the vehicle would then sit.
//
// What stands on the form is the page's address, so that it can be gone back to, kept as a bookmark, and survives a reload.

import { asker, lastOne, show } from "./preview.js";

const PAUSE_MS = 120;
/** Most steps that can be undone. */
const MOST_STEPS = 60;

/** Every slider at the step that its field says, where it says one of them. */
function followFields(form) {
  for (const slider of form.querySelectorAll("input[data-slides]")) {
    const text = form.elements.namedItem(slider.dataset.slides)?.value.trim();
    const at = JSON.parse(slider.dataset.texts).indexOf(text);
    if (at >= 0) slider.value = String(at);
    if (text) slider.setAttribute("aria-valuetext", `${text} ${slider.dataset.unit}`);
  }
}

/** Writes a slider's step into its field. */
function slide(form, slider) {
  const field = form.elements.namedItem(slider.dataset.slides);
  const text = JSON.parse(slider.dataset.texts)[Number(slider.value)];
  if (!field || text === undefined) return;
  field.value = text;
  slider.setAttribute("aria-valuetext", `${text} ${slider.dataset.unit}`);
}

/** The address of the form as it stands. */
function address(form) {
  const asked = new URLSearchParams();
  const unsaid = ["token", "revision", "add_kind"];
  for (const [name, value] of new FormData(form)) {
    if (value !== "" && !unsaid.includes(name)) asked.append(name, String(value));
  }
  return `${form.action.split("?")[0]}?${asked}`;
}

/** The steps taken on this device in this tab, the last one first on the way back. */
function steps(form) {
  const key = `steps ${new URL(form.action).pathname}`;
  const read = () => {
    try {
      return JSON.parse(window.sessionStorage.getItem(key)) ?? [];
    } catch {
      return [];
    }
  };
  const write = (all) => {
    try {
      window.sessionStorage.setItem(key, JSON.stringify(all.slice(-MOST_STEPS)));
    } catch {
      // The browser may refuse storage; then nothing can be undone.
    }
  };
  return {
    count: () => read().length,
    /** Notes where the form stands now, unless it stood there last. */
    note: (href) => {
      const all = read();
      if (all.at(-1) !== href) write([...all, href]);
    },
    /** Goes back a step: where it stood before this one. */
    back: () => {
      const all = read();
      all.pop();
      write(all);
      return all.at(-1);
    },
  };
}

/**
 * Attaches the sliders, where there are any.
 * @param {ParentNode} root
 */
export function attach(root) {
  const form = root.querySelector("#what-if-form");
  if (!form) return;
  const ask = asker(form, form);
  const paint = lastOne(async () => {
    const fresh = await ask();
    if (fresh) show(fresh, form);
  });
  for (const slider of form.querySelectorAll("input[data-slides]")) slider.hidden = false;
  const taken = steps(form);
  const undo = root.querySelector("#what-if-undo");
  const settle = () => {
    const href = address(form);
    window.history.replaceState(null, "", href);
    taken.note(href);
    undo.disabled = taken.count() < 2;
  };
  const goBack = () => {
    const href = taken.back();
    if (href) window.location.replace(href);
  };
  let waiting = 0;
  form.addEventListener("input", ({ target }) => {
    if (target === form || target.name === "add_kind" || target.name === "option_name" || target.name === "load_name") return;
    window.clearTimeout(waiting);
    if (target.dataset.slides) {
      slide(form, target);
      paint();
    } else {
      followFields(form);
      waiting = window.setTimeout(paint, target.tagName === "SELECT" ? 0 : PAUSE_MS);
    }
  });
  form.addEventListener("change", ({ target }) => {
    if (target.name !== "add_kind") settle();
  });
  undo.hidden = false;
  undo.addEventListener("click", goBack);
  document.addEventListener("keydown", (event) => {
    const typing = event.target.matches?.("input[type=text], textarea");
    if (event.key === "z" && (event.ctrlKey || event.metaKey) && !event.shiftKey && !typing && !undo.disabled) {
      event.preventDefault();
      goBack();
    }
  });
  settle();
}
