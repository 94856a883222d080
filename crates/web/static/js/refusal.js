// Leads from what is said beside Save to the first field that it is about.

import { reveal } from "./one_corner.js";

/**
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const said of root.querySelectorAll(".send .refusal")) {
    const form = said.closest("form");
    const first = form.querySelector("[aria-invalid]");
    if (!first) continue;
    const label = form.querySelector(`label[for="${CSS.escape(first.id)}"]`) ?? first.closest("fieldset")?.querySelector("legend");
    const way = Object.assign(document.createElement("button"), { type: "button", className: "refusal-way" });
    way.textContent = `${(label?.textContent ?? "to the first").trim()} ›`;
    way.addEventListener("click", () => {
      for (let fold = first.closest("details"); fold; fold = fold.parentElement.closest("details")) fold.open = true;
      reveal(first);
      first.focus();
      first.scrollIntoView({ block: "center" });
    });
    said.append(" ", way);
  }
}
