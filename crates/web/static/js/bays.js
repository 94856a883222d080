// Moves a booking by drag or by keys: how far it was moved goes to the server, which says where that is.

/** Half hours that a day's column stands for, by the lines in it. */
const STEP_KEYS = { ArrowLeft: { steps: -1 }, ArrowRight: { steps: 1 }, ArrowUp: { rows: -1 }, ArrowDown: { rows: 1 } };

/** Sends how far a booking was moved. */
function send(form, link, moved) {
  form.action = `${new URL(link.href.baseVal ?? link.href, location.href).pathname}/move`;
  for (const [name, value] of Object.entries(moved)) {
    const field = document.createElement("input");
    field.type = "hidden";
    field.name = name;
    field.value = String(value);
    form.append(field);
  }
  form.submit();
}

/** What a pixel of the picture is worth, read off the picture itself. */
function scaleOf(picture) {
  const days = [...picture.querySelectorAll(".bay-open")];
  const rows = [...picture.querySelectorAll(".bay-name")].map((name) => name.getBoundingClientRect().top);
  const day = days[0]?.getBoundingClientRect().width ?? 1;
  const hours = 2 * ([...picture.querySelectorAll(".bay-hour")].length / Math.max(days.length, 1) + 1);
  return { halfHour: day / (2 * hours), row: rows.length > 1 ? rows[1] - rows[0] : Infinity };
}

/** @param {ParentNode} root */
export function attach(root) {
  const picture = root.querySelector("svg.bay-week");
  const form = root.querySelector("form.bay-move");
  if (!picture || !form) return;
  // Whoever moves by keys goes on with the same booking.
  const moved = new URLSearchParams(location.search).get("moved");
  const same = [...picture.querySelectorAll("a")].find((link) => moved && link.querySelector(".bay-text")?.textContent.startsWith(`${moved} `));
  if (root === document) same?.focus();
  for (const link of picture.querySelectorAll("a")) {
    link.addEventListener("keydown", (event) => {
      const moved = STEP_KEYS[event.key];
      if (!moved || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      send(form, link, event.shiftKey && moved.steps ? { days: moved.steps } : moved);
    });
    link.addEventListener("dragstart", (event) => event.preventDefault());
    link.addEventListener("pointerdown", (begun) => {
      if (begun.button !== 0) return;
      const scale = scaleOf(picture);
      let dragged = false;
      const move = (event) => {
        const [x, y] = [event.clientX - begun.clientX, event.clientY - begun.clientY];
        if (Math.hypot(x, y) < 6 && !dragged) return;
        dragged = true;
        link.setAttribute("transform", `translate(${(x * 1200) / picture.getBoundingClientRect().width} ${(y * 1200) / picture.getBoundingClientRect().width})`);
        link.classList.add("is-dragged");
      };
      const end = (event) => {
        window.removeEventListener("pointermove", move);
        if (!dragged) return;
        link.addEventListener("click", (click) => click.preventDefault(), { once: true });
        const steps = Math.round((event.clientX - begun.clientX) / scale.halfHour);
        const rows = Math.round((event.clientY - begun.clientY) / scale.row);
        link.removeAttribute("transform");
        link.classList.remove("is-dragged");
        if (steps || rows) send(form, link, { steps, rows });
      };
      window.addEventListener("pointermove", move);
      window.addEventListener("pointerup", end, { once: true });
    });
  }
}
