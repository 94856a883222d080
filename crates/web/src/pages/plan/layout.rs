//! The page of the plan.

use std::ops::Range;

use actix_web::http::StatusCode;
use askama::Template;
use chrono::NaiveDate;
use wise_badger_casework::entry::{BendWord, RaisedWord, RustWord, SupplyWord};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::End;
use wise_badger_casework::work_plan::{PlannedWork, Supplied, Supply, stands_hold};
use wise_badger_casework::wrench::{Place, Proposal, proposals};

use super::super::job_frame::{JobFrame, as_chosen};
use super::super::wrench::may_be_worked_on;
use super::super::{Hidden, Page, Refusal, page};
use super::timeline::Timeline;
use super::{PlanRead, Reckoned};
use crate::correction::option_name;
use crate::error::WebError;
use crate::form::look_over::word;
use crate::form::work_plan::{extra_field, is_used, rows_shown, supply_field};
use crate::form::{Choice, Field, Picks, Sheet, Tick};
use crate::job_route::StageWords as _;
use crate::view::Cautions;
use crate::view::shelf::money_words;
use crate::view::work_plan::{
    bend_name, days_words, done_words, hours_words, needed_words, proposal_words, quarter_hours, raised_name, rust_name,
    stands_hold_words, sum_words, sums_words, supplied_words, supply_name,
};
use crate::view::wrench::{headings, place_words, stands_words};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "plan.html")]
struct PlanPage {
    frame: JobFrame,
    number: i32,
    hidden: Hidden,
    refusal: String,
    /// What is fitted; empty while nothing is chosen.
    option: String,
    /// Why no work may be done, and where to go instead.
    not_now: Option<(String, String, &'static str)>,
    not_looked_over: bool,
    cautions: Cautions,
    /// When it is done, how long it takes, what it costs: what, the figure, a note.
    heads: Vec<(&'static str, String, String)>,
    timeline: Option<Timeline>,
    parts: Vec<PartRow>,
    /// What is not ticked as here.
    missing: usize,
    rust: Picks,
    raised: Picks,
    /// What the work is done under.
    under: Vec<Tick>,
    soaked: Option<Tick>,
    stands: [Field; 1],
    of_the_pair: Tick,
    /// What stands carry, and whether those at hand are enough.
    stands_say: Vec<(String, &'static str)>,
    u_bolts: Option<(Vec<Field>, Picks)>,
    proposals: Vec<(&'static str, &'static str, String)>,
    extras: Vec<ExtraRow>,
    add_problem: String,
    sections: Vec<(String, String)>,
    quoted: Field,
    took: [Field; 2],
    terms: Vec<Field>,
    saturdays: Tick,
    terms_hidden: Hidden,
}

/// A needed thing.
struct PartRow {
    text: String,
    stock: String,
    stands_words: String,
    here: bool,
    late: bool,
    stands_name: String,
    stands: Vec<Choice>,
    due: Field,
    price: Field,
}

/// Something on top.
struct ExtraRow {
    row: usize,
    proposal: String,
    what: Field,
    price: Field,
    /// Not of what has steps of its own on the card.
    hours: Option<Field>,
    agreed: Picks,
    by: Field,
    /// Whether the customer was not asked yet.
    open: bool,
    /// Whether nothing is put down in it.
    blank: bool,
}

pub(super) fn plan_page(
    worker: &Worker,
    read: &PlanRead,
    sheet: &Sheet,
    refusal: Option<&Refusal>,
    today: NaiveDate,
) -> Result<Page, WebError> {
    let (file, units) = (&read.file, worker.units());
    let survey = file.work.found();
    let plan = &file.case().work_plan;
    let chosen = file.work.chosen();
    let work = read.work();
    let reckoned = read.reckoned(&work, units.currency, today);
    let kinds: Vec<&str> = chosen.map(|(_, parts)| parts.iter().map(|part| part.row().word).collect()).unwrap_or_default();
    let proposed = proposals(&work.card, &work.needed, &kinds, plan);
    let has_u_bolts = work.needed.iter().any(|needed| needed.key == "part.used.u_bolts");
    let template = PlanPage {
        frame: JobFrame::new(worker, file, Some(Stage::Plan), &as_chosen(&file.work)),
        number: file.job.number.0,
        hidden: Hidden::new(sheet, file.job.revision),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
        option: chosen.map(|(option, _)| option_name(option, survey.vehicle.class, units)).unwrap_or_default(),
        not_now: may_be_worked_on(&file.work).err().map(|(words, stage, link)| (words, stage.path(file.job.number), link)),
        not_looked_over: file.case().look_over.is_none(),
        cautions: Cautions::of(&chosen.map_or_else(Vec::new, |(_, parts)| file.work.cautions(parts))),
        heads: reckoned.as_ref().map(|of| heads(&work, of, read)).unwrap_or_default(),
        timeline: reckoned.as_ref().map(|of| Timeline::of(&of.schedule, today)),
        parts: reckoned.iter().flat_map(|of| &of.supplied).map(|supplied| part_row(supplied, read, sheet, worker)).collect(),
        missing: work.missing.len(),
        rust: sheet.picks("rust", "Its threads", RustWord::ALL.map(|rust| (word(rust), rust_name(rust)))),
        raised: sheet.picks("raised", "Raised", RaisedWord::ALL.map(|raised| (word(raised), raised_name(raised)))),
        under: vec![
            sheet.tick("two_people".to_owned(), "two people"),
            sheet.tick("hand_tools".to_owned(), "hand tools only"),
            sheet.tick("first_time".to_owned(), "whoever does it does it for the first time"),
        ],
        soaked: (plan.soaked || reckoned.as_ref().is_some_and(|of| of.schedule.soak))
            .then(|| sheet.tick("soaked".to_owned(), "threads were soaked overnight")),
        stands: [sheet.weight_field("stand_rating", "Stands rated for").hint("the figure on them")],
        of_the_pair: sheet.tick("of_the_pair".to_owned(), "that is for the pair"),
        stands_say: stands_say(&work, read, worker),
        u_bolts: has_u_bolts.then(|| {
            let fields = vec![
                sheet.length_field("u_bolt_width", "Width between the legs"),
                sheet.text_field("u_bolt_thread", "Thread, as on the old ones").hint("like 9/16-18"),
            ];
            (fields, sheet.picks("u_bolt_bend", "Bend", BendWord::ALL.map(|bend| (word(bend), bend_name(bend)))))
        }),
        proposals: proposed
            .map(|proposal| {
                let hours = work.on_top(&file.work, &read.entries(), proposal);
                (proposal.word, proposal_words(proposal), format!("about {} h on top", quarter_hours(hours)))
            })
            .collect(),
        extras: (0..rows_shown(sheet)).map(|row| extra_row(sheet, row)).collect(),
        add_problem: sheet.problem("propose").to_owned(),
        sections: sections(&work, read),
        quoted: sheet.number_field("quoted_hours", "Hours the shop quotes", "h").hint("in the place of those by the steps"),
        took: [
            sheet.number_field("took_hours", "Hours it took", "h"),
            sheet.text_field("took_words", "What held it up, or went quicker"),
        ],
        terms: term_fields(read, sheet),
        saturdays: Tick { name: "saturdays".to_owned(), label: "open on Saturdays".to_owned(), ticked: read.terms.saturdays },
        terms_hidden: Hidden::new(&Sheet::blank(units), file.job.revision),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

/// The three figures that the page is for.
fn heads(work: &PlannedWork, reckoned: &Reckoned<'_>, read: &PlanRead) -> Vec<(&'static str, String, String)> {
    let Reckoned { schedule: planned, estimate, .. } = reckoned;
    let quoted = read.file.case().work_plan.quoted_hours.is_some();
    let done = done_words(planned);
    let unknown = match planned.not_known {
        0 => String::new(),
        1 => " One thing has no day: it may be later.".to_owned(),
        count => format!(" {count} things have no day: it may be later."),
    };
    let soak = if planned.soak { " Soaked the evening before." } else { "" };
    let begun =
        format!("Parts here {}, begun {}, if a bay is free.{soak}{unknown}", days_words(planned.here), days_words(planned.begun));
    let hours = hours_words(work.labor);
    let by = match (quoted, work.by_the_shelf) {
        (true, _) => "As the shop quotes it.".to_owned(),
        (false, Some(hours)) => format!("By the steps, scaled to the shelf’s {} h for the parts alone.", quarter_hours(hours)),
        (false, None) => "By the steps: the shelf has no hours for every part.".to_owned(),
    };
    let took = read.file.case().work_plan.took_hours.map(|hours| format!(" It took {} h.", quarter_hours(hours)));
    let bay = format!("{by} The bay waits {}, with the drive.{}", hours_words(work.in_the_bay), took.unwrap_or_default());
    let (cost, note) = match (estimate.work, read.terms.hourly.as_ref()) {
        (None, _) => (
            format!("{} for parts", sum_words(estimate.parts, estimate.currency)),
            "Say below what an hour costs, and the work is in it.".to_owned(),
        ),
        (Some(_), _) => (sums_words(estimate.total, estimate.currency), "Parts, work and tax.".to_owned()),
    };
    let priced = match estimate.not_priced {
        0 => String::new(),
        1 => " One thing has no price: it comes on top.".to_owned(),
        count => format!(" {count} things have no price: they come on top."),
    };
    vec![("Done", done, begun), ("Work", hours, bay), ("Cost", cost, format!("{note}{priced}"))]
}

fn part_row(supplied: &Supplied<'_>, read: &PlanRead, sheet: &Sheet, worker: &Worker) -> PartRow {
    let (text, stock) = needed_words(supplied.needed, &read.file, worker.units());
    let field = |what: &str| supply_field(&supplied.needed.key, what);
    let stands_name = field("stands");
    let offered = std::iter::once((String::new(), "not said".to_owned()))
        .chain(SupplyWord::ALL.map(|stands| (word(stands), supply_name(stands).to_owned())));
    let price = supplied.shelf.and_then(|shelf| shelf.price.as_ref()).map(money_words);
    PartRow {
        stands_words: supplied_words(supplied),
        here: supplied.stands == Supply::Checked,
        late: matches!(supplied.stands, Supply::Ordered(Some(days)) if days < 0),
        stands: sheet.choices(&stands_name, offered),
        stands_name,
        due: sheet.text_field(&field("due"), &format!("Due, {text}")).stand_in("due day").small(),
        price: sheet
            .text_field(&field("price"), &format!("Price, {text}"))
            .stand_in(price.unwrap_or_else(|| "price".to_owned()))
            .small(),
        text,
        stock,
    }
}

fn extra_row(sheet: &Sheet, row: usize) -> ExtraRow {
    let field = |what: &str| extra_field(row, what);
    let proposal = sheet.text(&field("proposal")).to_owned();
    let has_steps = Proposal::of(&proposal).and_then(Proposal::repair).is_some();
    ExtraRow {
        row,
        what: sheet.text_field(&field("what"), "What"),
        price: sheet.text_field(&field("price"), "Parts cost"),
        hours: (!has_steps).then(|| sheet.number_field(&field("hours"), "Work", "h")),
        agreed: sheet.picks(&field("agreed"), "The customer says", [("yes", "yes"), ("no", "no"), ("", "not asked yet")]),
        by: sheet.text_field(&field("by"), "Who said so, and how"),
        open: is_used(sheet, row) && sheet.text(&field("agreed")).is_empty(),
        blank: !is_used(sheet, row) && !sheet.has_problem_in(&format!("extra{row}_")),
        proposal,
    }
}

/// What stands carry at each end that is raised.
fn stands_say(work: &PlannedWork, read: &PlanRead, worker: &Worker) -> Vec<(String, &'static str)> {
    let (survey, units) = (read.file.work.found(), worker.units());
    let raised = |end: End| work.card.steps.iter().any(|step| step.operation.word == "stands_set" && step.place.end == Some(end));
    let mut lines = Vec::new();
    for end in [End::Rear, End::Front].into_iter().filter(|end| raised(*end)) {
        let name = place_words(&Place { end: Some(end), ..Place::default() }, survey.vehicle.class);
        let hold = read.file.case().work_plan.stands.as_ref().and_then(|stands| stands_hold(survey, end, stands));
        match hold {
            Some(hold) => {
                let (words, enough) = stands_hold_words(&hold, &name, units);
                lines.push(if enough {
                    (words, "within")
                } else {
                    (format!("{words} Too little: take heavier stands."), "problem")
                });
            }
            None => {
                let words = stands_words(survey, end, units);
                let words = if words.is_empty() {
                    "What stands will carry is not known: weigh both axles, or take stands rated for the whole vehicle."
                        .to_owned()
                } else {
                    words
                };
                lines.push((format!("{name} up. {words}"), "hint"));
            }
        }
    }
    lines
}

/// Hours, heading by heading.
fn sections(work: &PlannedWork, read: &PlanRead) -> Vec<(String, String)> {
    let class = read.file.work.found().vehicle.class;
    let minutes =
        |steps: Range<usize>| work.card.steps.get(steps).unwrap_or_default().iter().map(|step| work.minutes(step)).sum::<f64>();
    let each = headings(&work.card.steps, class).into_iter();
    each.map(|heading| (heading.title, format!("{:.0} min", minutes(heading.steps)))).collect()
}

fn term_fields(read: &PlanRead, sheet: &Sheet) -> Vec<Field> {
    let terms = &read.terms;
    let mut shown = Sheet::blank(sheet.units());
    shown.set("hourly", terms.hourly.as_ref().map(|money| money.text.clone()).unwrap_or_default());
    for (name, figure) in
        [("tax_on_parts", terms.tax_on_parts), ("tax_on_work", terms.tax_on_work), ("hours_a_day", terms.hours_a_day)]
    {
        shown.set(name, figure.to_string());
    }
    vec![
        shown.text_field("hourly", "An hour of work costs"),
        shown.number_field("tax_on_parts", "Tax on parts", "%"),
        shown.number_field("tax_on_work", "Tax on work", "%"),
        shown.number_field("hours_a_day", "Hours worked on it in a day", "h"),
    ]
}
