// A pad of digits and eighths for gloved fingers, on screens that are touched.

import { goOn } from "./walk.js";

const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", "0"];
const EIGHTHS = ["1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "7/8"];
const FRACTION = /[\s-]*\d*\/\d*\s*$/;

/**
 * The text with a digit more: the first one typed takes the place of what stood there, and nothing goes on after a fraction.
 * @param {string} text
 * @param {string} digit
 * @param {boolean} isFresh whether nothing was typed since the field was entered
 */
export function withDigit(text, digit, isFresh) {
  if (isFresh) return digit;
  return text.includes("/") ? text : text + digit;
}

/**
 * The text with its fraction set, or taken away when there is none to set.
 * @param {string} text
 * @param {string} fraction
 */
export function withFraction(text, fraction) {
  const whole = text.includes("/") ? text.replace(FRACTION, "") : text.trim();
  return `${whole} ${fraction}`.trim();
}

function button(words, name, className, press) {
  const made = Object.assign(document.createElement("button"), { type: "button", textContent: words, className });
  made.setAttribute("aria-label", name);
  // The field keeps the focus, and with it the pad.
  made.addEventListener("pointerdown", (event) => event.preventDefault());
  made.addEventListener("click", press);
  return made;
}

function makePad(form) {
  let input = null;
  let fresh = true;
  const pad = Object.assign(document.createElement("div"), { className: "pad", hidden: true });
  pad.setAttribute("role", "group");
  pad.setAttribute("aria-label", "Digits and eighths");
  const set = (text) => {
    fresh = false;
    input.value = text;
    input.dispatchEvent(new Event("input", { bubbles: true }));
  };
  for (const eighth of EIGHTHS) pad.append(button(eighth, eighth, "", () => set(withFraction(input.value, eighth))));
  pad.append(button("0/8", "no fraction", "", () => set(withFraction(input.value, ""))));
  for (const digit of DIGITS) pad.append(button(digit, digit, "", () => set(withDigit(input.value, digit, fresh))));
  pad.append(button("⌫", "take back one character", "", () => set(input.value.slice(0, -1).trimEnd())));
  pad.append(
    button("abc", "use the device's own keyboard", "", () => {
      input.inputMode = "text";
      pad.hidden = true;
      input.blur();
      input.focus();
    }),
  );
  pad.append(button("Next", "next corner", "pad-next", () => goOn(input)));
  form.append(pad);
  return {
    show(wanted) {
      input = wanted;
      fresh = true;
      pad.hidden = false;
      // The pad takes the lower part of the screen; the field in hand must not lie under it.
      input.scrollIntoView({ block: "center" });
    },
    hide() {
      pad.hidden = true;
    },
    // What closes moves the page: a tap that is under way, on Save above all, must land where it was aimed.
    hideAfterTheTap() {
      const leaves = input;
      afterTheTap(() => {
        if (input === leaves && document.activeElement !== leaves) pad.hidden = true;
      });
    },
  };
}

let isDown = false;
const waiting = [];
addEventListener("pointerdown", () => (isDown = true), true);
for (const lets of ["pointerup", "pointercancel"]) {
  addEventListener(
    lets,
    () => {
      isDown = false;
      setTimeout(() => waiting.splice(0).forEach((work) => work()), 0);
    },
    true,
  );
}

/** Does something once a finger or a mouse that is down has let go and its click was taken; as soon where none is. */
function afterTheTap(work) {
  if (isDown) waiting.push(work);
  else setTimeout(work, 0);
}

/**
 * Gives the walk's inch fields the pad in place of the device's keyboard.
 * @param {ParentNode} root
 */
export function attach(root) {
  if (!window.matchMedia("(pointer: coarse)").matches) return;
  for (const form of root.querySelectorAll("form[data-draft]")) {
    if (!form.querySelector(".walk") || form.elements.namedItem("length_unit").value !== "in") continue;
    const pad = makePad(form);
    for (const input of form.querySelectorAll(".walk input")) {
      input.inputMode = "none";
      input.addEventListener("focus", () => (input.inputMode === "none" ? pad.show(input) : pad.hide()));
      input.addEventListener("blur", () => pad.hideAfterTheTap());
    }
  }
}
