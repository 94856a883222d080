// A grade that is not fine opens what may be found there, so that a finding costs two taps.

/**
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const area of root.querySelectorAll(".area")) {
    const found = area.querySelector("details.found");
    area.addEventListener("change", (event) => {
      if (event.target.type === "radio" && event.target.checked) found.open = event.target.value !== "fine";
    });
  }
}
