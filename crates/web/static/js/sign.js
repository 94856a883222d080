// Draws a signature: strokes of finger, pen or mouse become the path that is sent with the form.

/** Where a pointer is in the field, in its own whole units. */
function at(svg, event) {
  const box = svg.getBoundingClientRect();
  const { width, height } = svg.viewBox.baseVal;
  const within = (value, most) => Math.max(0, Math.min(most, Math.round(value)));
  return [
    within(((event.clientX - box.left) / box.width) * width, width),
    within(((event.clientY - box.top) / box.height) * height, height),
  ];
}

function attachField(field) {
  const [svg, path] = [field.querySelector("svg"), field.querySelector("path.strokes")];
  const sent = field.closest("form").elements.drawn;
  let drawing = false;
  const put = (mark, event) => {
    const [x, y] = at(svg, event);
    sent.value = `${sent.value} ${mark} ${x} ${y}`.trim();
    path.setAttribute("d", sent.value);
  };
  field.hidden = false;
  svg.addEventListener("pointerdown", (event) => {
    drawing = true;
    svg.setPointerCapture(event.pointerId);
    put("M", event);
    put("L", event);
    event.preventDefault();
  });
  svg.addEventListener("pointermove", (event) => {
    if (drawing) put("L", event);
  });
  for (const end of ["pointerup", "pointercancel"]) svg.addEventListener(end, () => (drawing = false));
  field.querySelector("[data-sign-clear]").addEventListener("click", () => {
    sent.value = "";
    path.setAttribute("d", "");
  });
}

/**
 * Attaches every field that is signed in.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const field of root.querySelectorAll("[data-sign]")) attachField(field);
}
