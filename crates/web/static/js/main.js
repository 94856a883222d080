// Starts what the page's script does; every page also works without it.

import { attach as attachBays } from "./bays.js";
import { attach as attachBench } from "./bench.js";
import { attach as attachDrafts } from "./draft.js";
import { attach as attachFinder } from "./finder.js";
import { attach as attachKeys } from "./keys.js";
import { listen } from "./live.js";
import { attach as attachLoadPlan } from "./load_plan.js";
import { attach as attachLookOver } from "./look_over.js";
import { attach as attachOneCorner } from "./one_corner.js";
import { attach as attachPad } from "./pad.js";
import { attach as attachPhotos } from "./photo.js";
import { attach as attachProgress } from "./progress.js";
import { attach as attachQuick } from "./quick.js";
import { attach as attachRefusal } from "./refusal.js";
import { attach as attachSending } from "./send.js";
import { attach as attachSign } from "./sign.js";
import { attach as attachUnderstood } from "./understood.js";
import { attach as attachWalk } from "./walk.js";
import { attach as attachWhatIf } from "./what_if.js";
import { attach as attachWrench } from "./wrench.js";

/**
 * Attaches everything to a part of the page, also to one that has just been put in.
 * @param {ParentNode} root
 */
function attachAll(root) {
  attachDrafts(root);
  attachUnderstood(root);
  attachWalk(root);
  attachOneCorner(root);
  attachPad(root);
  attachRefusal(root);
  attachSending(root, attachAll);
  attachSign(root);
  attachLoadPlan(root);
  attachLookOver(root);
  attachPhotos(root);
  attachBays(root);
  attachBench(root);
  attachWhatIf(root);
  attachQuick(root);
  attachProgress(root);
  attachFinder(root, attachAll);
  attachWrench(root, attachAll);
}

attachAll(document);
attachKeys();
listen(attachAll);
