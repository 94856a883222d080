// Follows what others do: the yard puts itself in anew, a job's page says that somebody saved the job.

/** Long enough that what comes together is looked at once. */
const TOGETHER_MS = 250;

/** Whether somebody is in the middle of something that must not be put in anew under their hands. */
function isBusy(part) {
  return part.contains(document.activeElement) && document.activeElement.matches("input, textarea, select, summary, button");
}

/** The page as the server has it now; nothing where it leads elsewhere. */
async function fresh() {
  const answer = await fetch(location.href, { headers: { accept: "text/html" } });
  if (!answer.ok || answer.redirected) return null;
  return new DOMParser().parseFromString(await answer.text(), "text/html");
}

/** @param {HTMLElement} part  what follows, by its id */
async function putInAnew(part, attachAll) {
  const there = (await fresh())?.getElementById(part.id);
  if (!there || isBusy(part)) return;
  const focused = document.activeElement?.closest?.(".job-line")?.getAttribute("href");
  const open = new Set([...part.querySelectorAll("details[open] > summary")].map((summary) => summary.textContent));
  part.replaceWith(there);
  for (const summary of there.querySelectorAll("details > summary")) summary.parentElement.open ||= open.has(summary.textContent);
  if (focused) there.querySelector(`.job-line[href="${focused}"]`)?.focus();
  attachAll(there);
}

/** The revision of the job that a page is drawn from. */
function revision(page) {
  return page?.querySelector("input[name=revision]")?.value ?? "";
}

/**
 * Listens while anything on the page follows and the page is seen: a browser has few connections to a server, and pages that nobody looks
 * at hold none of them.
 * @param {(root: ParentNode) => void} attachAll  attaches the page's script to what is put in
 */
export function listen(attachAll) {
  const job = Number(document.querySelector("[data-job]")?.dataset.job ?? 0);
  const note = document.querySelector(".somebody-saved");
  if (!document.querySelector("[data-follows]") && !note) return;
  const drawn = revision(document);
  let waiting = 0;
  let events = null;
  const follow = () => {
    if (waiting || !document.querySelector("[data-follows]")) return;
    waiting = window.setTimeout(() => {
      waiting = 0;
      const part = document.querySelector("[data-follows]");
      if (part) putInAnew(part, attachAll).catch(() => {});
    }, TOGETHER_MS);
  };
  const begin = () => {
    events = new EventSource("/events");
    events.addEventListener("message", (message) => {
      const happened = JSON.parse(message.data);
      // Nothing on a job's page is touched: what was typed there stays.
      if (note && !happened.own && happened.job === job) note.hidden = false;
      follow();
    });
  };
  /** What happened while nobody looked. */
  const catchUp = async () => {
    follow();
    if (note && drawn && revision(await fresh()) !== drawn) note.hidden = false;
  };
  document.addEventListener("visibilitychange", () => {
    events?.close();
    events = null;
    if (document.hidden) return;
    begin();
    catchUp().catch(() => {});
  });
  window.addEventListener("pagehide", () => events?.close(), { once: true });
  if (!document.hidden) begin();
}
