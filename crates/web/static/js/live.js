// Follows what others do: the yard puts itself in anew, a job's page says that somebody saved the job.

/** Long enough that what comes together is looked at once. */
const TOGETHER_MS = 250;

/** Whether somebody is in the middle of something that must not be put in anew under their hands. */
function isBusy(part) {
  return part.contains(document.activeElement) && document.activeElement.matches("input, textarea, select, summary, button");
}

/** @param {HTMLElement} part  what follows, by its id */
async function putInAnew(part, attachAll) {
  const answer = await fetch(location.href, { headers: { accept: "text/html" } });
  if (!answer.ok || answer.redirected) return;
  const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById(part.id);
  if (!fresh || isBusy(part)) return;
  const focused = document.activeElement?.closest?.(".job-line")?.getAttribute("href");
  const open = new Set([...part.querySelectorAll("details[open] > summary")].map((summary) => summary.textContent));
  part.replaceWith(fresh);
  for (const summary of fresh.querySelectorAll("details > summary")) summary.parentElement.open ||= open.has(summary.textContent);
  if (focused) fresh.querySelector(`.job-line[href="${focused}"]`)?.focus();
  attachAll(fresh);
}

/** Says on a job's page that somebody saved the job; nothing on the page is touched. */
function sayStale(note) {
  note.hidden = false;
}

/**
 * Listens while anything on the page follows.
 * @param {(root: ParentNode) => void} attachAll  attaches the page's script to what is put in
 */
export function listen(attachAll) {
  const job = Number(document.querySelector("[data-job]")?.dataset.job ?? 0);
  const note = document.querySelector(".somebody-saved");
  if (!document.querySelector("[data-follows]") && !note) return;
  let waiting = 0;
  const events = new EventSource("/events");
  events.addEventListener("message", (message) => {
    const happened = JSON.parse(message.data);
    if (note && !happened.own && happened.job === job) sayStale(note);
    if (waiting || !document.querySelector("[data-follows]")) return;
    waiting = window.setTimeout(() => {
      waiting = 0;
      const part = document.querySelector("[data-follows]");
      if (part) putInAnew(part, attachAll).catch(() => {});
    }, TOGETHER_MS);
  });
  window.addEventListener("pagehide", () => events.close(), { once: true });
}
