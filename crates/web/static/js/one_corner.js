// On a narrow screen the walk shows one corner at a time, with what comes next; all of them at a tap.

const NARROW = "(max-width: 767px)";

function made(tag, className, words = "") {
  return Object.assign(document.createElement(tag), { className, textContent: words });
}

function button(words, press) {
  const button = made("button", "btn btn-outline-primary", words);
  button.type = "button";
  button.addEventListener("click", press);
  return button;
}

function walkOf(corner) {
  return Number(corner.querySelector("[data-walk]").dataset.walk);
}

/** What a corner is called: its place, in its state. */
function called(corner) {
  return corner.closest(".station").querySelector(".station-name").textContent;
}

function take(plan) {
  const corners = [...plan.querySelectorAll(".corner")].sort((one, other) => walkOf(one) - walkOf(other));
  const at = made("p", "walk-at");
  const next = made("p", "walk-next hint");
  let here = 0;
  const show = (place) => {
    here = Math.min(Math.max(place, 0), corners.length - 1);
    const corner = corners[here];
    for (const other of plan.querySelectorAll(".is-here")) other.classList.remove("is-here");
    corner.classList.add("is-here");
    corner.closest(".station").classList.add("is-here");
    const same = corners.filter((other) => other.dataset.state === corner.dataset.state);
    at.textContent = `${corner.dataset.state}, ${same.indexOf(corner) + 1} of ${same.length}`;
    const after = corners[here + 1];
    next.textContent = after ? `Next: ${called(after).toLowerCase()}, ${after.dataset.state.toLowerCase()}` : "Next: save";
  };
  const go = (by) => {
    show(here + by);
    corners[here].querySelector("input").focus();
  };
  const all = button("All", () => {
    plan.classList.toggle("one-at-a-time");
    all.textContent = plan.classList.contains("one-at-a-time") ? "All" : "One at a time";
  });
  const ways = made("div", "walk-ways");
  ways.append(button("Back", () => go(-1)), button("Next", () => go(1)), all);
  plan.prepend(at);
  plan.append(next, ways);
  plan.classList.add("one-at-a-time");
  plan.addEventListener("focusin", (event) => {
    const corner = event.target.closest(".corner");
    if (corner) show(corners.indexOf(corner));
  });
  const wrong = corners.findIndex((corner) => corner.querySelector("[aria-invalid]"));
  const open = corners.findIndex((corner) => corner.querySelector("input").value === "");
  show(wrong >= 0 ? wrong : Math.max(open, 0));
}

/**
 * Lets a field be seen, so that it can be given the focus.
 * @param {HTMLInputElement} input
 */
export function reveal(input) {
  const corner = input.closest(".corner");
  const plan = corner?.closest(".one-at-a-time");
  if (!plan) return;
  for (const other of plan.querySelectorAll(".is-here")) other.classList.remove("is-here");
  corner.classList.add("is-here");
  corner.closest(".station").classList.add("is-here");
}

/**
 * @param {ParentNode} root
 */
export function attach(root) {
  if (!window.matchMedia(NARROW).matches) return;
  for (const plan of root.querySelectorAll(".plan-walk")) take(plan);
}
