// Keeps what is typed into a form on this device until the server has it.

const PREFIX = "draft ";

/**
 * What a draft is kept under: a shared tablet must not show one person what another typed.
 * @param {HTMLFormElement} form
 */
function key(form) {
  const person = document.querySelector("[data-person]")?.dataset.person ?? "";
  return `${PREFIX}${person} ${new URL(form.action).pathname}`;
}

/** The browser may refuse storage; then a draft is simply not kept. */
function stored(work) {
  try {
    return work(window.localStorage);
  } catch {
    return null;
  }
}

/** @param {HTMLFormElement} form */
function entries(form) {
  const secret = new Set([...form.querySelectorAll("input[type=password]")].map((input) => input.name));
  return [...new FormData(form)].filter(([name]) => !secret.has(name)).map(([name, value]) => [name, String(value)]);
}

/** Only what a person typed or picked; the token and the like differ at every visit. */
function typed(pairs, form) {
  const hidden = new Set([...form.querySelectorAll("input[type=hidden]")].map((input) => input.name));
  return JSON.stringify(pairs.filter(([name, value]) => !hidden.has(name) && value !== ""));
}

/**
 * Writes the form's state to this device.
 * @param {HTMLFormElement} form
 */
export function keepDraft(form) {
  const units = [...form.querySelectorAll(".field-unit")].map((unit) => [unit.parentElement.querySelector("input").name, unit.textContent]);
  const draft = { at: Date.now(), entries: entries(form), units };
  stored((storage) => storage.setItem(key(form), JSON.stringify(draft)));
}

/**
 * Forgets the draft, once the server has what it held.
 * @param {HTMLFormElement} form
 */
export function forgetDraft(form) {
  stored((storage) => storage.removeItem(key(form)));
}

/** Puts a draft's entries into the form, the units they were typed in and the revision they were typed on with them. */
function apply(form, draft) {
  const values = new Map();
  for (const [name, value] of draft.entries) values.set(name, [...(values.get(name) ?? []), value]);
  for (const control of form.elements) {
    if (!control.name || control.type === "submit") continue;
    const wanted = values.get(control.name) ?? [];
    if (control.type === "radio" || control.type === "checkbox") control.checked = wanted.includes(control.value);
    else control.value = wanted[0] ?? "";
    values.delete(control.name);
    if (control.type === "radio") values.set(control.name, wanted);
  }
  for (const [name, wanted] of values) {
    if (form.elements.namedItem(name)) continue;
    const control = Object.assign(document.createElement("input"), { type: "hidden", name, value: wanted[0] });
    form.append(control);
  }
  for (const [name, unit] of draft.units) {
    const place = form.elements.namedItem(name)?.parentElement?.querySelector(".field-unit");
    if (place) place.textContent = unit;
  }
}

function tell(form, at) {
  const time = new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  const note = Object.assign(document.createElement("p"), { className: "draft-note" });
  note.setAttribute("role", "status");
  const drop = Object.assign(document.createElement("button"), { type: "button", className: "btn btn-outline-primary btn-sm" });
  drop.textContent = "Discard";
  drop.addEventListener("click", () => {
    forgetDraft(form);
    window.location.reload();
  });
  note.append(`Not sent yet: what you typed at ${time} is back in the form. `, drop);
  form.prepend(note);
}

/**
 * Restores drafts and keeps them up to date while typing.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const form of root.querySelectorAll("form[data-draft]")) {
    // An answer of the server to what was just sent stands in the page already.
    const answered = form.querySelector("[aria-invalid], .has-problem, .refusal") !== null;
    const draft = answered ? null : stored((storage) => JSON.parse(storage.getItem(key(form))));
    if (draft && typed(draft.entries, form) !== typed(entries(form), form)) {
      apply(form, draft);
      tell(form, draft.at);
    }
    form.addEventListener("input", () => keepDraft(form));
  }
}
