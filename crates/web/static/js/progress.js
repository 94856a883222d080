// Says how far a file has come that is being taken in: the page waits for the answer, and asks meanwhile.

const EVERY_MS = 300;

/** Asks once, and says what the server answers. */
async function ask(form, bar, words) {
  const token = form.elements.namedItem("token").value;
  const answer = await fetch(`${form.dataset.progress}?token=${encodeURIComponent(token)}`).catch(() => null);
  const [done, of] = answer?.ok ? (await answer.text()).split(" ").map(Number) : [];
  if (!of) return;
  bar.max = of;
  bar.value = done;
  words.textContent = `${done} of ${of} parts`;
}

/**
 * Attaches the forms that take a file in.
 * @param {ParentNode} root
 */
export function attach(root) {
  for (const form of root.querySelectorAll("form[data-progress]")) {
    form.addEventListener("submit", () => {
      const [bar, words] = [form.querySelector("progress"), form.querySelector(".sending")];
      bar.hidden = false;
      words.textContent = "Reading the file…";
      window.setInterval(() => ask(form, bar, words), EVERY_MS);
    });
  }
}
