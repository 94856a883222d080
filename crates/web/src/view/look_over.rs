//! The look-over in words.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::look_over::PutRight;
use wise_badger_casework::look_over::{Addition, Area, Defect, Gate, Grade, Measure};
use wise_badger_casework::survey::{End, NoFit, SpringKind};

pub(crate) fn area_name(area: Area) -> &'static str {
    match area {
        Area::Leaves => "Leaves",
        Area::EyesAndBushes => "Eyes and bushings",
        Area::CentreBolt => "Center bolt",
        Area::Clips => "Clips",
        Area::UBoltsAndSeats => "U-bolts, seats, blocks",
        Area::ShacklesAndHangers => "Shackles and hangers",
        Area::Frame => "Frame",
        Area::BumpStops => "Bump stops",
        Area::Shocks => "Shocks",
        Area::AntiRollBar => "Sway bar and links",
        Area::HosesAndWires => "Brake hoses, lines, wires",
        Area::TyresAndWheels => "Tires and wheels",
        Area::Driveline => "Driveline",
        Area::AirHelper => "Air helper",
        Area::CoilSeats => "Coils or torsion bars, seats",
        Area::SteeringJoints => "Ball and steering joints",
    }
}

/// What to look for, in one line.
pub(crate) fn look_for(area: Area) -> &'static str {
    match area {
        Area::Leaves => "Cracks across a leaf near bolt and clips, gaps, a leaf out of line, rust steps, holes or welds.",
        Area::EyesAndBushes => "Pry at each eye: play, an eye that has opened, rubber squeezed out to one side.",
        Area::CentreBolt => "Head in its hole in the seat, both sides alike; measure hub to hanger if in doubt.",
        Area::Clips => "Every clip closed and its bolt in place; none cut and left.",
        Area::UBoltsAndSeats => "Threads necked or reused, nuts turning, cracked seats, what stands between spring and axle.",
        Area::ShacklesAndHangers => "Worn bolts, a shackle lying flat or turned over, cracks where hangers meet the frame.",
        Area::Frame => "Cracks and rust steps around hangers and stops; nuts inside the rail that turn.",
        Area::BumpStops => "Witness marks on stop and axle: fresh metal or torn rubber says that it has been hitting.",
        Area::Shocks => "Oil, dents, a bright ring at the end of the rod; mounts bent or cracked.",
        Area::AntiRollBar => "Links on both sides, bushings, rub marks on bar and tank with the axle hanging.",
        Area::HosesAndWires => {
            "Slack of every hose with the axle at full droop; chafe; try the lights: a wire can break inside a whole sheath."
        }
        Area::TyresAndWheels => "Size, pressure and wear alike across the axle; tread; cracks at the wheel's holes.",
        Area::Driveline => "Play in each joint, rub marks on the shaft, the carrier bearing.",
        Area::AirHelper => "Lines chafed or leaking, bags pinched, one shared line or one each.",
        Area::CoilSeats => {
            "Cracks, a broken end, rust at seats and anchors; isolators worn through, a coil turned out of its pocket."
        }
        Area::SteeringJoints => "Wheel off the ground, pry and rock: play in ball joints, rod ends and idler; torn boots.",
    }
}

pub(crate) fn grade_name(grade: Grade) -> &'static str {
    match grade {
        Grade::Fine => "Fine",
        Grade::Watch => "Watch",
        Grade::PutRight => "Fix now",
        Grade::Stop => "Repair first",
    }
}

pub(crate) fn defect_name(defect: Defect) -> &'static str {
    match defect {
        Defect::LeafCracked => "leaf cracked",
        Defect::LeafBroken => "leaf broken",
        Defect::LeafMissing => "leaf missing",
        Defect::LeafShifted => "leaf shifted",
        Defect::LeafDrilled => "leaf drilled",
        Defect::LeafWelded => "leaf welded or heated",
        Defect::HomeMadeWedge => "home-made wedge in the pack",
        Defect::LeafPitted => "leaves pitted by rust",
        Defect::LeavesDry => "leaves dry or rusted together",
        Defect::EyeWorn => "eye worn or opened",
        Defect::BushWorn => "bushing worn out",
        Defect::CentreBoltSheared => "center bolt sheared",
        Defect::CentreBoltLoose => "center bolt loose",
        Defect::ClipOpenOrMissing => "clip open or missing",
        Defect::UBoltStretched => "U-bolt stretched or reused",
        Defect::UBoltLoose => "U-bolt loose",
        Defect::SeatDamaged => "spring seat worn or cracked",
        Defect::StackedBlocks => "blocks stacked",
        Defect::BlockOnSteeredAxle => "block on the steered axle",
        Defect::ShackleWorn => "shackle or its bolt worn",
        Defect::HangerCracked => "hanger cracked or loose",
        Defect::FrameCracked => "frame cracked",
        Defect::FrameRusted => "frame eaten by rust",
        Defect::CaptiveNutGone => "captive nut gone or turning",
        Defect::StopHasBeenHitting => "stop has been hitting",
        Defect::StopMissing => "stop missing or perished",
        Defect::ShockWorn => "shock leaking or worn for what it carries",
        Defect::ShockWitnessMark => "shock has bottomed",
        Defect::ShockToppedOut => "shock has topped out",
        Defect::ShockMountDamaged => "shock mount cracked or bent",
        Defect::LinkBroken => "link broken or off",
        Defect::LinkWitnessMark => "link or bar has been rubbing",
        Defect::HoseAtLimit => "hose at its limit at full droop",
        Defect::HoseChafed => "hose or line chafed or rusted",
        Defect::WireBrokenInSheath => "wire broken inside a whole sheath",
        Defect::TyresUnlike => "tires differ across the axle",
        Defect::TreadWornOut => "tread past its limit",
        Defect::WheelCracked => "wheel cracked",
        Defect::JointWorn => "shaft joint worn",
        Defect::ShaftWitnessMark => "shaft has been touching",
        Defect::AirLeak => "bag or air line leaking",
        Defect::CoilBroken => "coil or torsion bar cracked, broken or out of its seat",
        Defect::IsolatorWorn => "isolator worn through or missing",
        Defect::SteeringJointWorn => "play in a steering joint",
    }
}

/// What has to be done along with the job.
pub(crate) fn addition_name(addition: Addition) -> &'static str {
    match addition {
        Addition::NewLeaf => "a new leaf in the place of the failed one, or a new pack",
        Addition::NewPack => "a new pack",
        Addition::ShockMount => "the shock mount repaired",
        Addition::NewUBolts => "new U-bolts, both sides",
        Addition::LongerHose => "a longer brake hose, or its bracket moved; circuit bled and pedal checked",
        Addition::NewHose => "a new hose or line; circuit bled and pedal checked",
        Addition::NewBushes => "new bushings, tightened at ride height",
        Addition::NewCentreBolt => "a new center bolt",
        Addition::Clips => "clips closed, or new ones bolted on",
        Addition::Shocks => "a pair of shocks",
        Addition::LongerShocks => "longer shocks, or their mounts moved",
        Addition::ShorterShocks => "shocks that close further, or their mounts moved",
        Addition::BumpStops => "a pair of bump stops",
        Addition::Shackles => "shackles and their bolts",
        Addition::LampCheck => "all lights tried, the wire repaired",
        Addition::CaptiveNut => "a nut that holds, without welding near the spring",
        Addition::Links => "links on both sides",
        Addition::TyresAlike => "tires and pressures alike across the axle, then read again",
        Addition::OneBlock => "one block in place of several, or the spring made right",
        Addition::WedgeOut => "the wedge taken out, then read again",
        Addition::ShaftJoint => "a new shaft joint",
        Addition::AirLine => "air line or bag",
        Addition::NewCoils => "a pair of coils, or of torsion bars",
        Addition::Isolators => "isolators, both sides",
        Addition::SteeringJoint => "the steering joint renewed, alignment set",
    }
}

/// What is to be put right with the job, and with an option on it, a line each.
pub(crate) fn put_right_words(work: &Casework, option: Option<usize>) -> Vec<String> {
    let said = |area| work.case().look_over.as_ref().and_then(|entry| entry.of(area)).map_or("", |entry| entry.words.as_str());
    let line = |put_right: PutRight| match put_right {
        PutRight::Repair(addition, Some(defect)) => format!("{} ({})", addition_name(addition), defect_name(defect)),
        PutRight::Repair(addition, None) => addition_name(addition).to_owned(),
        PutRight::Defect(defect) => defect_name(defect).to_owned(),
        PutRight::Area(area) => match said(area) {
            "" => area_name(area).to_lowercase(),
            words => format!("{}: {words}", area_name(area).to_lowercase()),
        },
    };
    work.to_put_right(option).into_iter().map(line).collect()
}

/// A measure and what decides.
pub(crate) fn measure_name(measure: Measure) -> &'static str {
    match measure {
        Measure::HoseSlack => "Least hose slack at full droop",
        Measure::BushPlay => "Most play in an eye",
        Measure::FrontTread => "Least tread, front",
        Measure::RearTread => "Least tread, rear",
        Measure::ShockRod => "Rear shock draws out by, as it stands empty",
        Measure::UBoltLeg => "U-bolt leg, bend to end",
        Measure::ShaftLength => "Shaft, joint to joint",
        Measure::ShaftDrop => "Its rear joint lies lower by",
        Measure::ShockCloses => "Rear shock closes by, as it stands empty",
        Measure::FrontShockRod => "Front shock draws out by, as it stands empty",
        Measure::HalfShaftLength => "Front half-shaft, joint to joint",
        Measure::HalfShaftDrop => "Its outer joint lies lower by",
        Measure::FrontTrackBarLength => "Front track bar, end to end",
        Measure::FrontTrackBarDrop => "Its end on the axle lies lower by",
        Measure::RearTrackBarLength => "Rear track bar, end to end",
        Measure::RearTrackBarDrop => "Its end on the axle lies lower by",
        Measure::RadiusArmLength => "Front radius arm, axle to its end on the frame",
    }
}

/// A gate in words: what it is, and by which rule.
pub(crate) fn gate_words(gate: &Gate) -> String {
    match gate {
        Gate::Defect(defect) => format!("{} ({})", defect_name(*defect), defect.rule().source),
        Gate::Stop(area) => format!("{} graded “stop” on the look-over", area_name(*area)),
        Gate::NoFit(no_fit) => no_fit_words(no_fit),
        Gate::Yields => "a leaf that it adds or bends yields under rated load".to_owned(),
        Gate::PastItsCapacity => "with the load on it is pressed further than what it is made for".to_owned(),
        Gate::TooShort(Addition::NewUBolts) => "the legs of its U-bolts are too short for it".to_owned(),
        Gate::TooShort(what) => format!("it needs {} with it", addition_name(*what)),
    }
}

fn springs_name(on: SpringKind) -> &'static str {
    match on {
        SpringKind::Leaf => "leaf springs",
        SpringKind::Coil => "coil springs",
        SpringKind::Torsion => "torsion bars",
        SpringKind::Air => "air springs",
    }
}

fn end_word(end: End) -> &'static str {
    if end == End::Front { "front" } else { "rear" }
}

pub(crate) fn no_fit_words(no_fit: &NoFit) -> String {
    match no_fit {
        NoFit::NoLeaves(end, on) => format!("the {} rests on {}, and this is work on leaves", end_word(*end), springs_name(*on)),
        NoFit::NothingClamped(end, on) => {
            format!(
                "the {} rests on {}, and this goes only between a leaf spring and the axle clamped to it",
                end_word(*end),
                springs_name(*on)
            )
        }
        NoFit::Lowers(end) => format!("the {} axle sits over its springs, where a block lowers the vehicle", end_word(*end)),
        NoFit::OnABlock(end) => {
            format!("a block is at the {} already (Intake), and one is never put on another: exchange it", end_word(*end))
        }
        NoFit::NoBlockThere(end) => format!("no block is noted at the {} on Intake", end_word(*end)),
        NoFit::NoCoils(end, on) => {
            format!("the {} rests on {}, and this goes between a coil spring and its seat", end_word(*end), springs_name(*on))
        }
        NoFit::OnAir(end) => {
            format!("the {} rests on air springs, whose valve sets its height: leaks, lines and valve come first", end_word(*end))
        }
        NoFit::NotUnder(end) => format!("Intake does not say that the springs at the {} are under the axle", end_word(*end)),
        NoFit::NoFront => "a trailer has no front axle".to_owned(),
        NoFit::NoShackles => {
            "a trailer's springs hang on rockers and slippers: a longer shackle there is the axle maker's matter".to_owned()
        }
        NoFit::CoilsNotSaid(end) => {
            format!(
                "nobody has said that the {} rests on coil springs, and this needs them; put it on Intake first",
                end_word(*end)
            )
        }
        NoFit::NoneComesOut(end) => {
            format!("Intake notes none at the {} that could come out: note it there first, or let none come out", end_word(*end))
        }
        NoFit::OneComesOut(end) => {
            format!("Intake notes one at the {}, and it comes out: its height is taken off", end_word(*end))
        }
        NoFit::OtherComesOut(end) => {
            format!(
                "Intake notes another height for the one at the {}: measure it again, and correct one of the two",
                end_word(*end)
            )
        }
        NoFit::NotSaid(end) => {
            format!("nobody has said what the {} rests on, and this needs leaf springs; put it on Intake first", end_word(*end))
        }
    }
}

/// Why a correction is ruled out, in a sentence; empty when it is not.
pub(crate) fn ruled_out(gates: &[Gate]) -> String {
    if gates.is_empty() { String::new() } else { gates_words(gates) }
}

/// What rules something out, in a sentence.
pub(crate) fn gates_words(gates: &[Gate]) -> String {
    let sentence = |is_of: fn(&Gate) -> bool, begins: &str, ends: &str| {
        let reasons: Vec<String> = gates.iter().filter(|gate| is_of(gate)).map(gate_words).collect();
        (!reasons.is_empty()).then(|| format!("{begins}: {}.{ends}", reasons.join("; ")))
    };
    let sentences = [
        sentence(|gate| matches!(gate, Gate::NoFit(_)), "Does not fit here", ""),
        sentence(|gate| matches!(gate, Gate::Defect(_) | Gate::Stop(_)), "Ruled out by the look-over", " Fix that first."),
        sentence(|gate| matches!(gate, Gate::Yields), "Ruled out by its steel", " Change the plan on Bench."),
        sentence(
            |gate| matches!(gate, Gate::TooShort(Addition::NewUBolts)),
            "Ruled out by its own U-bolts",
            " Take longer ones.",
        ),
        sentence(
            |gate| matches!(gate, Gate::TooShort(what) if *what != Addition::NewUBolts),
            "Ruled out by what is too short",
            " Fit it together with that (“Goes with it”), or tick the repair on Look-over.",
        ),
        sentence(|gate| matches!(gate, Gate::PastItsCapacity), "Ruled out by its own capacity", " Take a stronger one."),
    ];
    sentences.into_iter().flatten().collect::<Vec<_>>().join(" ")
}
