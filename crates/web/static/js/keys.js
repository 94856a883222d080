// Quick keys: where nothing is being typed, a key leads somewhere; `?` opens the page's help over it.

/** Whether a key belongs to what is being typed. */
function isTyping(target) {
  return target instanceof HTMLElement && (target.isContentEditable || target.matches("input:not([type=checkbox]):not([type=radio]), textarea, select"));
}

/** Moves the focus along a list of lines. */
function step(by) {
  const lines = [...document.querySelectorAll(".job-line")];
  if (lines.length === 0) return false;
  const here = lines.indexOf(document.activeElement);
  lines[Math.min(Math.max(here + by, 0), lines.length - 1)].focus();
  return true;
}

/** Shows the page's help over the page, from the address that the help link leads to. */
async function showHelp(link) {
  const answer = await fetch(link.href);
  if (!answer.ok || answer.redirected) return window.location.assign(link.href);
  const help = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector(".help");
  if (!help) return undefined;
  const dialog = document.createElement("dialog");
  dialog.className = "help-over";
  dialog.setAttribute("aria-label", "Help");
  const close = document.createElement("button");
  close.className = "btn btn-outline-primary help-close";
  close.textContent = "Close";
  close.addEventListener("click", () => dialog.close());
  dialog.append(close, help);
  dialog.addEventListener("close", () => {
    dialog.remove();
    link.focus();
  });
  document.body.append(dialog);
  dialog.showModal();
  return undefined;
}

/** Listens to keys on the whole page. */
export function attach() {
  const link = document.querySelector("a.help-link");
  link?.addEventListener("click", (event) => {
    if (event.metaKey || event.ctrlKey || event.shiftKey) return;
    event.preventDefault();
    showHelp(link).catch(() => window.location.assign(link.href));
  });
  document.addEventListener("keydown", (event) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
    if (document.querySelector("dialog[open]")) return;
    const leads = document.querySelector(`a[data-key="${CSS.escape(event.key)}"]`);
    if (event.key === "?" && link) link.click();
    else if (event.key === "/" && document.querySelector("input[type=search]")) document.querySelector("input[type=search]").focus();
    else if (leads) leads.click();
    else if (!((event.key === "j" && step(1)) || (event.key === "k" && step(-1)))) return;
    event.preventDefault();
  });
}
