// Shows beside a field how the server reads what is being typed.

const PAUSE_MS = 180;

function write(field, className, words) {
  const place = field.querySelector(".field-said");
  const said = Object.assign(document.createElement("span"), { className, textContent: words });
  place.replaceChildren(said);
}

async function ask(input) {
  const value = (name) => input.form.elements.namedItem(name).value;
  const question = new URLSearchParams({
    reads: input.dataset.reads,
    text: input.value,
    length_unit: value("length_unit"),
    weight_unit: value("weight_unit"),
  });
  if (input.dataset.walk) question.set("height", "yes");
  for (const held of (input.dataset.against ?? "").split(" ").filter(Boolean)) {
    const [how, name] = held.split(":");
    const other = input.form.elements.namedItem(name);
    if (other?.value) question.set(how, other.value);
  }
  const answer = await fetch(`/understood?${question}`);
  return answer.ok && !answer.redirected ? answer.json() : {};
}

function watch(input) {
  const field = input.closest(".field");
  const hint = field.querySelector(".hint")?.textContent ?? "";
  let waiting = 0;
  const look = async (finished) => {
    const asked = input.value;
    const read = await ask(input).catch(() => ({}));
    if (input.value !== asked) return;
    if (read.doubt && finished) write(field, "doubt", `= ${read.understood}; ${read.doubt}.`);
    else if (read.understood) write(field, "understood", `= ${read.understood}`);
    else if (read.problem && finished) write(field, "problem", read.problem);
    else write(field, "hint", hint);
    field.classList.toggle("has-problem", Boolean(read.problem && finished));
    if (read.problem && finished) input.setAttribute("aria-invalid", "true");
    else input.removeAttribute("aria-invalid");
  };
  input.addEventListener("input", () => {
    window.clearTimeout(waiting);
    waiting = window.setTimeout(() => look(false), PAUSE_MS);
  });
  input.addEventListener("change", () => look(true));
}

/**
 * Watches every field that the server reads a quantity from.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const input of root.querySelectorAll("input[data-reads]")) watch(input);
}
