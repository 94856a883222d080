// Sends forms without leaving the page, so that a lost connection loses nothing.

import { forgetDraft, keepDraft } from "./draft.js";

function say(form, words, isProblem) {
  const place = form.querySelector(".sending");
  place.textContent = words;
  place.classList.toggle("is-act", isProblem);
}

/** Puts the server's answer in the place of the page's main part. */
function show(html, attachAll) {
  const answer = new DOMParser().parseFromString(html, "text/html");
  const main = answer.querySelector("main");
  document.querySelector("main").replaceWith(main);
  // What stands over the page says how far the job has come.
  const head = answer.querySelector("header.masthead");
  if (head) document.querySelector("header.masthead").replaceWith(head);
  document.title = answer.title;
  attachAll(main);
  const first = main.querySelector("[aria-invalid]") ?? main.querySelector("[role=alert]") ?? main;
  for (let fold = first.closest("details"); fold; fold = fold.parentElement.closest("details")) fold.open = true;
  first.focus();
  first.scrollIntoView({ block: "center" });
}

/** What a page without this form says instead, so that the form can stay; empty when the form is on it. */
function refusal(html, form) {
  const page = new DOMParser().parseFromString(html, "text/html");
  if (form.id && page.getElementById(form.id)) return "";
  if (!form.id && page.querySelector("form[data-draft]")) return "";
  const words = [...page.querySelectorAll("main .lead, main .lead + p")].map((part) => part.textContent.trim());
  return words.join(" ") || "Not saved: the program could not take it. What you typed is kept on this device; send it again in a moment.";
}

async function send(form, button, attachAll) {
  const body = new URLSearchParams(new FormData(form, button));
  const answer = await fetch(form.action, { method: "POST", body });
  const there = new URL(answer.url);
  if (answer.redirected) {
    if (there.pathname !== "/sign-in") forgetDraft(form);
    window.location.assign(answer.url);
    return;
  }
  const html = await answer.text();
  const told = refusal(html, form);
  if (!answer.ok && told) {
    say(form, told, true);
    return;
  }
  // A row added or taken off: the page stands as it should, and is the draft from now on.
  if (answer.ok) forgetDraft(form);
  show(html, attachAll);
  const next = document.getElementById(form.id);
  if (answer.ok && next) keepDraft(next);
}

/**
 * Takes over the sending of every form that keeps a draft.
 * @param {ParentNode} root
 * @param {(root: ParentNode) => void} attachAll attaches all scripts to an answer put into the page
 */
export function attach(root, attachAll) {
  for (const form of root.querySelectorAll("form[data-draft]")) {
    form.addEventListener("submit", async (event) => {
      event.preventDefault();
      if (form.dataset.sending) return;
      form.dataset.sending = "yes";
      keepDraft(form);
      say(form, "Sending…", false);
      try {
        await send(form, event.submitter, attachAll);
      } catch {
        say(form, "Not saved: no connection. What you typed is kept on this device; send it again when the connection is back.", true);
      } finally {
        delete form.dataset.sending;
      }
    });
  }
}
