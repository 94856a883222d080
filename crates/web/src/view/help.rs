//! What each page is for, in a few lines; its keys; the words of the trade as this program uses them.

/// The help of a page.
#[derive(Debug)]
pub(crate) struct Help {
    /// The beginning of the path that it is for; `#` stands for a number.
    at: &'static str,
    pub(crate) title: &'static str,
    pub(crate) lines: &'static [&'static str],
    /// The rule behind each of the page's refusals.
    pub(crate) refusals: &'static [&'static str],
    pub(crate) keys: &'static [(&'static str, &'static str)],
    words: &'static [&'static str],
}

impl Help {
    /// The words that the page uses, with what they mean.
    pub(crate) fn words(&self) -> impl Iterator<Item = (&'static str, &'static str)> {
        self.words.iter().filter_map(|word| GLOSSARY.iter().find(|(of, _)| of == word).copied())
    }
}

/// Keys of every page.
pub(crate) const KEYS: &[(&str, &str)] = &[
    ("?", "this help"),
    ("y", "the yard"),
    ("b", "the bays"),
    ("s", "the shelf"),
    ("l", "the ledger"),
    ("Tab", "on to the next field or button; Shift and Tab back"),
];

/// One glossary for the whole program.
pub(crate) const GLOSSARY: &[(&str, &str)] = &[
    ("aim", "The height that is wanted, in which state, and how near to it is near enough."),
    ("band", "Where a figure lies in about 95 of 100 cases: two standard deviations either way."),
    ("datum", "What a height is measured from and to: ground to arch, hub to arch. Two heights compare only on one datum."),
    ("free arch", "How high a leaf or a pack stands with nothing on it."),
    ("gap", "What is left between the axle and its bump stop."),
    ("hold", "A question on the wrench card that is answered before the work goes on at that end."),
    ("lean", "How much lower one side sits than the other."),
    ("load case", "What is aboard together, and how much of the time."),
    ("over a rating", "More on an axle, or in all, than the plate allows. Weight comes off; no spring changes a rating."),
    ("preload", "Force that a spring carries before anything more is put on."),
    ("promise", "What was predicted of an option when it was chosen. The proof is held against it."),
    ("rake", "How much higher the rear sits than the front, on one datum."),
    ("rate", "Force gained for each inch a spring gives: lb/in or N/mm."),
    ("set", "Height that a spring has lost for good."),
    ("settled", "After some hundred miles, when bushings and leaves have found their place."),
    ("stands", "What carries a vehicle that is raised from the floor. Never a jack."),
    ("tie", "Two figures nearer to each other than their bands."),
];

const ROUTE: &str = "A job goes from intake and load over the tape, the look-over and the verdict to an aim, an option, a plan, the \
                     work and the proof. A stage can be left and come back to; a later one asks for what it cannot do without.";
const SAVED_BY_ANOTHER: &str = "Saved by somebody else: the job moved on after the page was opened. Nothing of yours is lost; what differs \
                                stands beside your fields.";
const CLOSED: &str = "Finished: a finished job is closed until somebody takes it up again.";

/// In the order in which paths are tried: the more particular first.
const HELPS: &[Help] = &[
    Help {
        at: "/jobs/new",
        title: "New job",
        lines: &[
            "One vehicle brought in once. What the customer says goes down in the customer's words.",
            "With a plate that the shop knows, class, wheelbase and ratings come from the last visit: hold them against the door sticker.",
        ],
        refusals: &["Ratings are on the vehicle's plate. Without them nothing says how much may be put on."],
        keys: &[],
        words: &["over a rating", "datum"],
    },
    Help {
        at: "/jobs/#/intake",
        title: "Intake",
        lines: &["The complaint, what the vehicle is, whose it is, and what was done to it before.", ROUTE],
        refusals: &[
            "Over a rating, whoever raises one shows once more who they are: a rating is not changed to fit a load.",
            SAVED_BY_ANOTHER,
            CLOSED,
        ],
        keys: &[],
        words: &["over a rating"],
    },
    Help {
        at: "/jobs/#/load",
        title: "Load",
        lines: &["What is aboard, case by case, each thing with its weight and place, and which cases the ratings hold for."],
        refusals: &["Over a rating: it says what must come off, and from where.", SAVED_BY_ANOTHER],
        keys: &[],
        words: &["load case", "over a rating"],
    },
    Help {
        at: "/jobs/#/tape",
        title: "Tape",
        lines: &[
            "Heights at the wheels, empty and loaded, both sides, on one datum. Roll and bounce first.",
            "More weight between the two states makes the rate surer than more readings do.",
        ],
        refusals: &[
            "A figure far outside what such vehicles measure is asked about before it is taken.",
            SAVED_BY_ANOTHER,
            CLOSED,
        ],
        keys: &[("Enter", "on round the vehicle to the next corner")],
        words: &["datum", "gap", "rake", "lean"],
    },
    Help {
        at: "/jobs/#/look-over",
        title: "Look-over",
        lines: &[
            "What is found on the vehicle, place by place. What is cracked, bent or seized rules corrections out until it is put right.",
        ],
        refusals: &["A failed part carries no correction: it is repaired first."],
        keys: &[],
        words: &["hold"],
    },
    Help {
        at: "/jobs/#/verdict",
        title: "Verdict",
        lines: &[
            "What the readings say: the rate with its band, where the lost inches went, and what is likeliest behind the sag.",
        ],
        refusals: &[
            "Too weak to say: the load moved the height by little more than the tape can be off. It says what to read next.",
        ],
        keys: &[],
        words: &["rate", "band", "set", "tie"],
    },
    Help {
        at: "/jobs/#/aim",
        title: "Aim",
        lines: &[
            "What height is right, in which state, and by how much it may miss. Options are ranked by how surely they meet it.",
        ],
        refusals: &[SAVED_BY_ANOTHER, CLOSED],
        keys: &[],
        words: &["aim", "rake", "band"],
    },
    Help {
        at: "/jobs/#/finder",
        title: "Finder",
        lines: &[
            "Every sensible combination of the shelf's parts on this vehicle, with its chance of meeting the aim, price and hours; and why the others are not.",
        ],
        refusals: &["Why not: a rating, a stop, a hose, a failed part. Each says what would make it possible."],
        keys: &[],
        words: &["aim", "band", "load case"],
    },
    Help {
        at: "/jobs/#/what-if",
        title: "What if",
        lines: &[
            "Try parts and settings on this vehicle and see where it would sit. Nothing is kept until you keep it as an option.",
        ],
        refusals: &[],
        keys: &[("← →", "a slider's step back or on")],
        words: &["band", "gap", "preload"],
    },
    Help {
        at: "/jobs/#/options",
        title: "Options",
        lines: &[
            "The corrections considered, each predicted with its band in every state and case. One is chosen; what is promised then stays on record.",
        ],
        refusals: &[
            "Nothing is predicted past a rating or on a failed part.",
            "What comes too short (a hose, a shock) must be on the option, or be put right with it.",
        ],
        keys: &[],
        words: &["promise", "band", "gap"],
    },
    Help {
        at: "/jobs/#/bench",
        title: "Bench",
        lines: &["The pack leaf by leaf: what it carries, where leaves touch, how far they are strained, and the re-arch."],
        refusals: &["A bench is for leaves; a vehicle on coils has none."],
        keys: &[],
        words: &["free arch", "set", "rate"],
    },
    Help {
        at: "/jobs/#/plan",
        title: "Plan",
        lines: &[
            "What the work needs and when that is here, how long it takes, what it costs and when it is honestly done; booked into a bay from here.",
        ],
        refusals: &[
            "Nothing comes apart until all is here and was held against the vehicle; a lead may say why it does all the same.",
        ],
        keys: &[],
        words: &["stands"],
    },
    Help {
        at: "/jobs/#/wrench",
        title: "Wrench card",
        lines: &[
            "The work step by step. Holds are answered before it goes on; torques want the maker's figure and what the wrench read.",
            "Two people can tick one card, and a phone without a connection keeps its ticks and sends them later.",
        ],
        refusals: &[
            "A step waits while a hold before it is open at that end.",
            "A lead says yes to a cut, and to work begun while parts are missing.",
        ],
        keys: &[],
        words: &["hold", "stands"],
    },
    Help {
        at: "/jobs/#/proof",
        title: "Proof",
        lines: &["Measured again after fitting, after the drive and once settled, held against what was promised."],
        refusals: &[
            "Outside the band the reason is said before the job is finished.",
            "Whoever did the work does not release it alone without a reason, where the shop has others who may.",
            "Whoever releases it shows once more who they are.",
        ],
        keys: &[("Enter", "on round the vehicle to the next corner")],
        words: &["promise", "band", "settled"],
    },
    Help {
        at: "/jobs/#",
        title: "The job on one page",
        lines: &["Everything of a job together, as it is printed; who has it and when it is promised. ", ROUTE],
        refusals: &[SAVED_BY_ANOTHER],
        keys: &[],
        words: &["promise", "aim", "rake"],
    },
    Help {
        at: "/shelf",
        title: "Shelf",
        lines: &[
            "The shop's parts, as sold and as found. What your own proofs say of a part stands with it and counts in predictions where a lead lets it.",
        ],
        refusals: &["A file is taken in whole or not at all: each row that is not understood is named."],
        keys: &[("/", "look for a part")],
        words: &["rate", "free arch"],
    },
    Help {
        at: "/quick",
        title: "Quick answer",
        lines: &[
            "For the telephone: what a vehicle probably needs by its class and the caller's words, before anything is measured. It becomes a job when the vehicle comes in.",
        ],
        refusals: &[],
        keys: &[],
        words: &["band"],
    },
    Help {
        at: "/sums",
        title: "Sums",
        lines: &["One relation of the trade at a time, worked out with what you type or with a job's figures."],
        refusals: &[],
        keys: &[],
        words: &["rate", "datum"],
    },
    Help {
        at: "/bays",
        title: "Bays",
        lines: &[
            "A week by bay. A vehicle stays on its stands overnight, so its bay is taken through the night. Drag a booking or move it by keys.",
        ],
        refusals: &["No bay holds two vehicles at once, and no vehicle is in two: the records themselves keep it so."],
        keys: &[("← →", "a booking with the focus: half an hour back or on"), ("Shift ← →", "a day"), ("↑ ↓", "to another bay")],
        words: &["stands"],
    },
    Help {
        at: "/ledger",
        title: "Ledger",
        lines: &[
            "What parts really did, from every proof; sound heights by class; how closely each of you reads. A part's record is drawn toward what was said of it while few jobs speak.",
        ],
        refusals: &["Fewer than three jobs say nothing of a part."],
        keys: &[],
        words: &["promise", "band", "settled"],
    },
    Help {
        at: "/vehicles",
        title: "Vehicle",
        lines: &["One vehicle over all its visits: what it measured, what was found and fitted, and what came back."],
        refusals: &[],
        keys: &[],
        words: &["datum", "rate"],
    },
    Help {
        at: "/customers",
        title: "Customer",
        lines: &[
            "Whose vehicles they are. On request what is written of a customer is erased; what was measured stays. People leads an owner to those who were not here for years.",
        ],
        refusals: &["Erasing asks once more who you are, and is not taken back."],
        keys: &[],
        words: &[],
    },
    Help {
        at: "/people",
        title: "People",
        lines: &[
            "Who works in the shop and as what. Links for joining and for a new password are shown once; a shared tablet signs people in by PIN.",
        ],
        refusals: &["A shop keeps at least one owner."],
        keys: &[],
        words: &[],
    },
    Help {
        at: "/me",
        title: "Your own page",
        lines: &["What you may do, your password and PIN, and where you are signed in."],
        refusals: &["A new password is set only by whoever shows the one before."],
        keys: &[],
        words: &[],
    },
    Help {
        at: "/",
        title: "Yard, and a first day",
        lines: &[
            "Open jobs by what must happen next, what is due, and who called. It follows by itself what the others do.",
            "A first day: an owner puts down bays and people. Open a job with the vehicle's plate figures. Measure it empty, put a known weight on, measure it loaded. Look it over. Set an aim, and let the finder show what the shelf has for it.",
            "Begin the shelf with the ten parts you fit most: number, what the box says, price.",
        ],
        refusals: &[],
        keys: &[
            ("/", "find a job"),
            ("n", "new job"),
            ("q", "quick answer"),
            ("j k", "down and up the list"),
            ("Enter", "open the job"),
        ],
        words: &["over a rating", "promise"],
    },
];

/// The help of the page at a path; the yard's, where it has none of its own.
pub(crate) fn help_of(path: &str) -> &'static Help {
    let path = path.split('?').next().unwrap_or(path);
    let parts: Vec<&str> = path.split('/').collect();
    let is_for = |help: &&Help| {
        let of: Vec<&str> = help.at.split('/').collect();
        let number = |part: &str| !part.is_empty() && part.bytes().all(|sign| sign.is_ascii_digit());
        of.len() <= parts.len() && of.iter().zip(&parts).all(|(of, part)| of == part || (*of == "#" && number(part)))
    };
    let found = HELPS.iter().filter(|help| help.at != "/").find(is_for);
    found.or(HELPS.last()).unwrap_or(&NONE)
}

/// What stands in where there is no table at all.
const NONE: Help = Help { at: "", title: "Help", lines: &[], refusals: &[], keys: &[], words: &[] };

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_page_has_its_own_help_and_every_word_its_meaning() {
        for (path, title) in [
            ("/", "Yard, and a first day"),
            ("/?q=x", "Yard, and a first day"),
            ("/jobs/new", "New job"),
            ("/jobs/7", "The job on one page"),
            ("/jobs/7/history", "The job on one page"),
            ("/jobs/12/tape", "Tape"),
            ("/jobs/3/proof/settled", "Proof"),
            ("/jobs/3/bench/re-arch", "Bench"),
            ("/shelf/parts/9", "Shelf"),
            ("/bays?week=2026-12-07", "Bays"),
            ("/nowhere", "Yard, and a first day"),
        ] {
            assert_eq!(help_of(path).title, title, "{path}");
        }
        for help in HELPS {
            assert_eq!(help.words().count(), help.words.len(), "{}: {:?}", help.title, help.words);
            assert!(!help.lines.is_empty(), "{}", help.title);
        }
        let mut words: Vec<&str> = GLOSSARY.iter().map(|(word, _)| *word).collect();
        words.dedup();
        assert!(words.is_sorted() && words.len() == GLOSSARY.len(), "one glossary, in order");
    }
}
