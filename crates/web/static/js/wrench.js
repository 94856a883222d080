// Takes ticks of the wrench card with a connection or without: each goes onto a list that this device keeps, under a key of its own, and
// from there to the server, in order, until the server has it.

const AGAIN_MS = 4000;
const LIST = "wrench-ticks";

/** A key of this device's own; not every browser makes one where the page comes without TLS. */
function newKey() {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return `tick-${[...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("")}`;
}

/** What ticks of a card are kept under: on a shared tablet nobody's go to the server in another's name. */
function list(address) {
  return `${LIST} ${document.querySelector("[data-person]")?.dataset.person ?? ""} ${address}`;
}

/** What whoever is signed in still has to send for a card from this device, in order. */
function waiting(address) {
  return JSON.parse(localStorage.getItem(list(address)) ?? "[]");
}

function keep(address, ticks) {
  if (ticks.length > 0) localStorage.setItem(list(address), JSON.stringify(ticks));
  else localStorage.removeItem(list(address));
}

/** Shows on the card what is kept here and not with the server yet; what waited for a hold that is answered with a yes is opened. */
function mark(place, address) {
  const kept = waiting(address);
  const words = place.querySelector(".kept-here");
  words.hidden = kept.length === 0;
  words.textContent = kept.length === 0 ? "" : `${kept.length} kept on this device, not sent yet`;
  for (const step of place.querySelectorAll("[data-step]")) {
    const own = kept.filter((tick) => tick.step === step.dataset.step).at(-1);
    step.classList.toggle("is-kept", Boolean(own));
    const waits = step.dataset.waits.split(" ").filter(Boolean);
    const answer = (hold) => kept.filter((tick) => tick.step === hold).at(-1)?.answer ?? "no";
    const open = waits.filter((hold) => ["no", "taken_back"].includes(answer(hold)));
    for (const button of step.querySelectorAll("button")) button.disabled = waits.length > 0 && open.length > 0;
  }
  // Where the work goes on is unfolded, also while the server cannot say where that is.
  const goesOn = kept.length > 0 && place.querySelector(".wrench-step:not(.is-done):not(.is-kept):has(button:not([disabled]))");
  const section = goesOn && goesOn.closest("details");
  if (section) section.open = true;
}

/** Puts the card as the server has it in the place of what stands there. */
function show(place, html, attachAll) {
  const focused = place.contains(document.activeElement) ? document.activeElement : null;
  const typing = focused?.matches("input:not([type=hidden])") && focused.value !== focused.defaultValue;
  if (typing) return;
  const step = focused?.closest("[data-step]")?.dataset.step;
  place.innerHTML = html;
  attachAll(place);
  // Whoever goes on by key goes on where the work does.
  if (step) (place.querySelector("#next button:not([disabled])") ?? place.querySelector(`[data-step="${step}"] button`))?.focus();
}

function say(place, step, words) {
  const there = place.querySelector(`[data-step="${CSS.escape(step)}"]`);
  const told = there?.querySelector(".refused") ?? document.createElement("p");
  told.className = "problem refused";
  told.setAttribute("role", "alert");
  told.textContent = words;
  there?.append(told);
}

/** What the server says of a tick that it does not take. */
function refusal(html) {
  const page = new DOMParser().parseFromString(html, "text/html");
  const words = [...page.querySelectorAll("main .lead, main .lead + p")].map((part) => part.textContent.trim());
  return words.join(" ") || "Not taken: open the card again.";
}

/** Sends what is kept here, the oldest first; what the server refuses is said at its step, and not sent again. */
async function send(place, address, attachAll) {
  if (place.dataset.sending) return;
  place.dataset.sending = "yes";
  try {
    for (let kept = waiting(address); kept.length > 0; kept = waiting(address)) {
      const [tick] = kept;
      const answer = await fetch(address, { method: "POST", body: new URLSearchParams({ ...tick, part: "card" }) });
      // A server that is out of order for a moment has not refused it; whoever is not signed on signs on and comes back.
      if (answer.status >= 500 || answer.redirected) break;
      keep(address, waiting(address).filter((other) => other.key !== tick.key));
      const html = await answer.text();
      if (answer.ok) show(place, html, attachAll);
      else say(place, tick.step, refusal(html));
    }
  } catch {
    // No connection: they stay here.
  } finally {
    delete place.dataset.sending;
    mark(place, address);
  }
}

/** Brings in what others ticked. */
async function look(place, address, attachAll) {
  if (document.hidden || place.dataset.sending || waiting(address).length > 0) return;
  const last = place.querySelector("[data-last]").dataset.last;
  const answer = await fetch(`${place.dataset.since}?since=${last}`).catch(() => null);
  if (answer?.status === 200 && !answer.redirected && waiting(address).length === 0) {
    show(place, await answer.text(), attachAll);
    mark(place, address);
  }
}

/**
 * Attaches the wrench card.
 * @param {ParentNode} root
 * @param {(root: ParentNode) => void} attachAll attaches all scripts to what is put into the page
 */
export function attach(root, attachAll) {
  const place = document.getElementById("wrench-card");
  if (!place) return;
  const address = place.dataset.ticks;
  for (const form of root.querySelectorAll("form.tick")) {
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      const tick = Object.fromEntries(new FormData(form, event.submitter));
      const kept = { ...tick, key: newKey(), at: String(Date.now()) };
      keep(address, [...waiting(address), kept]);
      mark(place, address);
      send(place, address, attachAll);
    });
  }
  mark(place, address);
  if (place.dataset.attached) return;
  place.dataset.attached = "yes";
  window.addEventListener("online", () => send(place, address, attachAll));
  window.setInterval(() => {
    if (waiting(address).length > 0) send(place, address, attachAll);
    else look(place, address, attachAll);
  }, AGAIN_MS);
  send(place, address, attachAll);
}
