// Keeps the finder's page up with its search: how far it has come, what is found so far, and whether it is out of date.

const EVERY_MS = 400;
const AFTER_MS = 15000;

/** Asks how a search stands; nothing while the server does not answer. */
async function ask(place) {
  const answer = await fetch(place.dataset.look).catch(() => null);
  return answer?.ok ? (await answer.text()).split("\n") : [];
}

/** Puts the page as it is by now in the place of what stands there, unless somebody is at work in it. */
async function renew(page, attachAll, atLast) {
  if (!atLast && page.contains(document.activeElement)) return;
  const answer = await fetch(window.location.href).catch(() => null);
  if (!answer?.ok) return;
  const now = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector(".finder-page");
  if (!now || !page.isConnected) return;
  page.replaceWith(now);
  attachAll(now);
}

/** Follows a search that goes on. */
function follow(place, page, attachAll) {
  const again = async () => {
    if (!place.isConnected) return;
    const [stands, words, done, of, found] = await ask(place);
    if (stands === "looking") {
      place.querySelector(".came").textContent = words;
      const bar = place.querySelector("progress");
      [bar.max, bar.value] = [Math.max(Number(of), 1), Number(done)];
      if (Number(found) > Number(place.dataset.found)) await renew(page, attachAll, false);
    } else if (stands) {
      await renew(page, attachAll, true);
      return;
    }
    window.setTimeout(again, EVERY_MS);
  };
  window.setTimeout(again, EVERY_MS);
}

/** Says so as soon as what is shown is out of date. */
function watch(place) {
  let timer = 0;
  const look = async () => {
    window.clearTimeout(timer);
    if (!place.isConnected) {
      document.removeEventListener("visibilitychange", look);
      window.removeEventListener("focus", look);
      return;
    }
    const [stands] = document.hidden ? [] : await ask(place);
    place.hidden = stands !== "stale" && place.hidden;
    if (place.hidden) timer = window.setTimeout(look, AFTER_MS);
  };
  document.addEventListener("visibilitychange", look);
  window.addEventListener("focus", look);
  timer = window.setTimeout(look, AFTER_MS);
}

/**
 * Attaches the finder's page.
 * @param {ParentNode} root
 * @param {(root: ParentNode) => void} attachAll attaches all scripts to what is put into the page
 */
export function attach(root, attachAll) {
  const page = root.matches?.(".finder-page") ? root : root.querySelector(".finder-page");
  const place = page?.querySelector("[data-look]");
  if (!place) return;
  if ("ended" in place.dataset) watch(place);
  else follow(place, page, attachAll);
}
