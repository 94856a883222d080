// Sends a photograph without leaving the page, so that a lost connection costs nothing but another press.

/**
 * Takes over the sending of photographs.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const form of root.querySelectorAll("form[data-photo]")) {
    const say = (words, isProblem) => {
      const place = form.querySelector(".sending");
      place.textContent = words;
      place.classList.toggle("is-act", isProblem);
    };
    form.addEventListener("submit", async (event) => {
      event.preventDefault();
      if (form.dataset.sending) return;
      form.dataset.sending = "yes";
      say("Sending…", false);
      try {
        const answer = await fetch(form.action, { method: "POST", body: new FormData(form) });
        if (answer.redirected) return window.location.assign(answer.url);
        const page = new DOMParser().parseFromString(await answer.text(), "text/html");
        say(page.querySelector("main p")?.textContent ?? "Not kept; send it again.", true);
      } catch {
        say("Not sent: no connection. The photograph is still chosen here; press again when the connection is back.", true);
      } finally {
        delete form.dataset.sending;
      }
    });
  }
}
