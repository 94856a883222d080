// Shows every field that was refused, and leads from what is said beside Save to the first of them.

import { reveal } from "./one_corner.js";

const REFUSED = "[aria-invalid], .has-problem";

/** Whatever folds a field away stands open. */
function unfold(field) {
  for (let fold = field.closest("details"); fold; fold = fold.parentElement.closest("details")) fold.open = true;
}

/**
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const said of root.querySelectorAll(".send .refusal")) {
    const form = said.closest("form");
    form.querySelectorAll(REFUSED).forEach(unfold);
    const marked = form.querySelector(REFUSED);
    const first = marked?.matches("[aria-invalid]") ? marked : marked?.querySelector("input, select, textarea");
    if (!first) continue;
    const label = marked.matches("fieldset")
      ? marked.querySelector("legend")
      : (form.querySelector(`label[for="${CSS.escape(first.id)}"]`) ?? first.closest("fieldset")?.querySelector("legend"));
    const way = Object.assign(document.createElement("button"), { type: "button", className: "refusal-way" });
    way.textContent = `${(label?.textContent ?? "to the first").trim()} ›`;
    way.addEventListener("click", () => {
      unfold(first);
      reveal(first);
      first.focus();
      first.scrollIntoView({ block: "center" });
    });
    said.append(" ", way);
  }
}
