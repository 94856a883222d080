//! Choosing, fitting, proving, finishing.

use reqwest::StatusCode;

use crate::site::Site;
use crate::{BLOCK, Visitor, consider, measured_half_ton, open_half_ton, shop, tape, walk};

async fn with_block_chosen(ada: &Visitor) -> String {
    let job = measured_half_ton(ada).await;
    consider(ada, &job, &BLOCK).await;
    let proof = ada.press(&format!("{job}/options"), "/choose").await;
    assert!(proof.path.ends_with("/plan"), "{}", proof.text("main"));
    job
}

#[tokio::test]
async fn heights_after_fitting_are_held_against_the_prediction_that_was_chosen() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    assert_eq!(ada.get(&path).await.text(".aim-line"), "Fitted: Lift block, 2 in");
    let proof = ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 7/16", "19 1/4"])).await;
    let (empty, note, _) = proof.figure("Rear, empty");
    assert_eq!(empty, "23 7/16 in");
    assert!(note.contains("inside the band, 1/16 in below the figure"), "{note}");
    let (loaded, note, sum) = proof.figure("Rear, loaded");
    assert_eq!(loaded, "19 1/4 in");
    assert!(note.contains("outside the band, 1 9/16 in below the figure; find out why"), "{note}");
    assert!(sum.contains("predicted 20.81 in") && sum.contains("measured 19.25 in"), "{sum}");
    // What is on Tape may be put right later; the proof stays against the prediction as it was chosen.
    ada.fill(&format!("{job}/tape"), &tape(["22", "18 13/16"], "1,000")).await;
    assert!(ada.get(&path).await.figure("Rear, empty").2.contains("predicted 23.50 in"));
}

#[tokio::test]
async fn a_job_is_finished_only_when_measured_again_and_can_be_taken_up_again() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    assert!(ada.get(&path).await.texts("form[action$='/finish']").is_empty());
    let early = ada.get(&path).await.form("form[data-draft]").with(&[]);
    let early = ada.post(&format!("{job}/finish"), &[("token".to_owned(), early.value("token").to_owned())]).await;
    assert_eq!(early.status, StatusCode::CONFLICT);
    assert!(early.text("main").contains("Measure the rear again"));
    ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"])).await;
    let told = ada.get(&path).await.text(".key-figures");
    assert!(told.contains("Rear, with the load, as found"), "what it stood at before is said to be that: {told}");
    let finished = ada.press(&path, "/finish").await;
    assert_eq!(finished.text(".stands"), "Finished");
    assert_eq!(ada.get("/?finished=true").await.text(".is-finished .job-stands"), "Finished");
    let job_page = ada.press(&job, "/reopen").await;
    // It was chosen without an aim: none is asked for afterwards, and it can be set all the same.
    assert_eq!(job_page.text(".stands"), "Measured after fitting; to finish");
    ada.fill(&format!("{job}/aim"), &[("kind", "level_empty"), ("tolerance", "1/4")]).await;
    assert_eq!(ada.get(&job).await.text(".stands"), "Measured after fitting; to finish");
}

#[tokio::test]
async fn the_job_page_gathers_the_whole_job() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    ada.fill(&format!("{job}/proof"), &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"])).await;
    let page = ada.get(&job).await;
    let rear = page.texts(".heights tbody tr").pop().unwrap();
    assert_eq!(rear, "Rear 21 1/2 in 18 13/16 in 23 1/2 in 20 3/4 in");
    assert!(page.text(".summary").contains("Lift block, 2 in"));
    assert!(page.text(".summary").contains("measured by Ada"));
    assert!(page.texts(".cautions li").len() >= 3);
    let drawing = page.text("svg.stance-wide desc");
    assert!(drawing.contains("Rear: empty after 23 1/2 in") || drawing.contains("empty 21 1/2 in"), "{drawing}");
}

#[tokio::test]
async fn a_choice_can_be_taken_back_and_a_correction_off_the_list_put_back() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let options = format!("{job}/options");
    let chosen = ada.get(&options).await;
    assert!(chosen.texts("form[action$='/withdraw']").is_empty(), "what is chosen cannot be taken off the list");
    let datum = ada.fill(&format!("{job}/tape"), &[("datum", "ground_to_arch")]).await;
    assert!(datum.text(".picks .problem").contains("take the choice back"), "{}", datum.text(".picks"));
    ada.press(&options, "/options/none").await;
    let gone = ada.press(&options, "/withdraw").await;
    assert!(gone.texts(".considered li").is_empty());
    let restored = ada.send(&gone.form("form[action$='/restore']")).await;
    assert_eq!(restored.text(".option h3"), "Lift block, 2 in");
}

#[tokio::test]
async fn options_shows_what_was_just_tried_and_otherwise_the_chosen_one_before_a_newer() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let options = format!("{job}/options");
    let looked_at = |page: &crate::Page| page.text("[aria-current='true']");
    let tried = consider(&ada, &job, &[("kind", "lift_block"), ("thickness", "3")]).await;
    assert!(looked_at(&tried).starts_with("Lift block, 3 in"), "{}", looked_at(&tried));
    let later = ada.get(&options).await;
    assert!(looked_at(&later).starts_with("Lift block, 2 in"), "{}", looked_at(&later));
}

#[tokio::test]
async fn outside_the_band_the_reason_is_asked_before_the_job_is_finished_and_kept() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    let fine = ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"])).await;
    assert!(fine.texts(".reason").is_empty(), "inside there is nothing to say");
    let low = ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 1/2", "19 1/4"])).await;
    assert!(low.text(".reason").contains("because of"), "{}", low.text("main"));
    let early = ada.press(&path, "/finish").await;
    assert_eq!(early.status, StatusCode::CONFLICT);
    assert!(early.text("main").contains("Say why on Proof"), "{}", early.text("main"));
    ada.fill(&path, &[("reason", "part")]).await;
    assert_eq!(ada.press(&path, "/finish").await.status, StatusCode::CONFLICT, "picked, and not in words");
    ada.fill(&path, &[("reason_words", "Block is 1 1/2 in, marked 2 in")]).await;
    assert_eq!(ada.press(&path, "/finish").await.text(".stands"), "Finished");
    let kept = ada.get(&path).await.form("form[data-draft]");
    assert_eq!(kept.value("reason_words"), "Block is 1 1/2 in, marked 2 in");
}

#[tokio::test]
async fn tires_changed_with_the_job_are_taken_out_of_heights_from_the_ground() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("front_tyre", "245/75R16"), ("rear_tyre", "245/75R16")])).await;
    let mut read = tape(["35 1/2", "32 13/16"], "1,000");
    read.retain(|(name, _)| *name != "datum");
    read.push(("datum", "ground_to_arch"));
    ada.fill(&format!("{job}/tape"), &read).await;
    consider(&ada, &job, &BLOCK).await;
    ada.press(&format!("{job}/options"), "/choose").await;
    let path = format!("{job}/proof");
    // 265 against 245 at 75 %: the radius is 15 mm more, 0.59 in, whatever the block does.
    let mut after = walk(["20 1/2", "20 1/2"], ["38 1/16", "35 3/8"]).to_vec();
    let before = ada.fill(&path, &after).await;
    assert!(before.figure("Rear, empty").1.contains("above the figure"), "{}", before.figure("Rear, empty").1);
    after.push(("rear_tyre_now", "265/75R16"));
    let (height, note, sum) = ada.fill(&path, &after).await.figure("Rear, empty");
    assert_eq!(height, "37 1/2 in");
    assert!(note.contains("inside the band") && note.contains("new tires taken out"), "{note}");
    assert!(sum.contains("38.06 in − 0.59 in = 37.47 in"), "{sum}");
    let unknown = ada.fill(&path, &[("rear_tyre_now", "265/75")]).await;
    assert_eq!(unknown.status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn a_front_that_the_aim_wants_raised_is_as_the_aim_wants_it() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    let raised = walk(["22", "22"], ["23 1/2", "20 3/4"]);
    assert!(ada.fill(&path, &raised).await.figure("Front, empty").1.contains("outside the band"));
    let goals = [
        ("kind", "level_empty"),
        ("tolerance", "1/4"),
        ("goal.0.mark", "front"),
        ("goal.0.when", "empty"),
        ("goal.0.way", "within"),
        ("goal.0.height", "22"),
        ("goal.0.tolerance", "1/4"),
    ];
    let aim = ada.fill(&format!("{job}/aim"), &goals).await;
    assert!(aim.status.is_success(), "{}", aim.text("main"));
    let (_, note, _) = ada.get(&path).await.figure("Front, empty");
    assert!(note.contains("as the aim wants it"), "{note}");
}

/// After the drive and once it has settled it is read again: the last reading of an end counts, and how far it came down is said.
#[tokio::test]
async fn a_proof_is_read_three_times_and_the_last_one_counts() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 7/8"])).await;
    ada.fill(&format!("{path}/driven"), &walk(["20 1/2", "20 1/2"], ["23 7/16", "20 13/16"])).await;
    let settled =
        ada.fill(&format!("{path}/settled"), &[("loaded.rear_left.0", "20 5/8"), ("loaded.rear_right.0", "20 5/8")]).await;
    assert!(settled.path.ends_with("/proof/settled"));
    assert_eq!(settled.figure("Rear, loaded").0, "20 5/8 in", "as it was read last");
    assert_eq!(settled.figure("Rear, empty").0, "23 7/16 in", "which was not read once it had settled");
    let rows = settled.texts(".table tbody tr");
    let loaded = rows.iter().find(|row| row.starts_with("Rear, loaded")).expect("it was read three times");
    for height in ["20 7/8", "20 13/16", "20 5/8", "−1/4"] {
        assert!(loaded.contains(height), "{height} in {loaded}");
    }
    assert_eq!(ada.get(&path).await.field("loaded.rear_left.0").0, "20 7/8", "the first readings stay");
}

/// What is off alike in every state is the part's; with it the page says so, and what can be set.
#[tokio::test]
async fn a_miss_is_explained_and_what_was_not_checked_stands_on_the_sheet() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    let proof = ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["22 7/8", "20 1/8"])).await;
    let said = proof.text(".reason");
    assert!(said.contains("Likeliest behind it") && said.contains("The part does not lift"), "{said}");
    let checked = [("check_headlights", "not_done"), ("check_leaks", "done"), ("check_hitch_height", "has_none")];
    ada.fill(&path, &checked).await;
    let sheet = ada.get(&format!("{job}/handover")).await.text("main");
    assert!(sheet.contains("Done: No leaks.") && sheet.contains("Not done: Headlights aimed."), "{sheet}");
    assert!(!sheet.contains("Hitch height") && sheet.contains("Not noted whether done: Spare"), "{sheet}");
}

/// Whoever did the work is not the one who releases it, unless he says why.
#[tokio::test]
async fn somebody_else_releases_the_work_or_a_reason_is_given() {
    let site = Site::demo();
    let (bram, odalys) = (Visitor::working(&site.address, "Bram").await, Visitor::working(&site.address, "Odalys").await);
    let job = with_block_chosen(&bram).await;
    let path = format!("{job}/proof");
    bram.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 13/16"])).await;
    let fields = [("step", "leveling_off"), ("key", "device-a-00001"), ("answer", "yes")];
    let fields: Vec<(String, String)> = fields.iter().map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
    bram.post(&format!("{job}/wrench/ticks"), &fields).await;
    let refused = bram.press(&path, "/finish").await;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(refused.text("main").contains("somebody else of the shop"), "{}", refused.text("main"));
    assert!(odalys.get(&path).await.texts("[name='released_alone']").is_empty(), "she did none of it");
    let form = bram.get(&path).await.form("form[action$='/finish']");
    let alone = bram.send(&form.with(&[("released_alone", "Alone in the shop on a Saturday.")])).await;
    assert_eq!(alone.text(".stands"), "Finished");
    let sheet = bram.get(&format!("{job}/handover")).await.text("main");
    assert!(sheet.contains("Alone in the shop on a Saturday."), "{sheet}");
}

/// Another floor, not rolled: the height stands with what was different, is no proof, and what the next time was as before clears it.
#[tokio::test]
async fn a_height_that_was_read_otherwise_is_no_proof() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    let mut read = walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"]).to_vec();
    read.push(("otherwise_not_rolled", "yes"));
    let proof = ada.fill(&path, &read).await;
    let (_, note, _) = proof.figure("Rear, empty");
    assert!(note.contains("as predicted") && note.ends_with("no proof yet: not rolled and bounced"), "{note}");
    assert!(proof.texts(".figure.is-good").is_empty(), "nothing is proven by it: {}", proof.text(".figures"));
    let form = proof.form("form[data-draft]");
    assert_eq!(form.value("otherwise_not_rolled"), "yes", "what was said stays said");
    let sheet = ada.get(&format!("{job}/handover")).await;
    assert!(sheet.text("main").contains("no proof yet: not rolled and bounced"), "{}", sheet.text("main"));
    // After the drive it was as before: what was read then counts, and is a proof.
    let driven = format!("{path}/driven");
    let again = ada.fill(&driven, &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"])).await;
    assert!(!again.figure("Rear, empty").1.contains("no proof yet"), "{}", again.text(".figures"));
    let first = ada.get(&path).await.form("form[data-draft]");
    assert_eq!(first.value("otherwise_not_rolled"), "yes", "each time keeps its own");
}

/// Who comes back once it has settled has the nuts and bolts seen to then; heights that were all read otherwise stay due.
#[tokio::test]
async fn heights_that_were_read_otherwise_once_settled_stay_due() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let path = format!("{job}/proof");
    ada.fill(&path, &walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"])).await;
    let due = || async { ada.get(&format!("{job}/handover")).await.text("main") };
    let first = due().await;
    assert!(first.contains("U-bolts tightened again") && first.contains("heights measured again"), "{first}");
    let mut read = walk(["20 1/2", "20 1/2"], ["23 7/16", "20 11/16"]).to_vec();
    read.push(("otherwise_not_rolled", "yes"));
    ada.fill(&format!("{path}/settled"), &read).await;
    let came_back = due().await;
    assert!(!came_back.contains("U-bolts tightened again") && came_back.contains("heights measured again"), "{came_back}");
    ada.fill(&format!("{path}/settled"), &[("otherwise_not_rolled", "")]).await;
    let proven = due().await;
    assert!(!proven.contains("heights measured again"), "{proven}");
}

/// Other tires are nothing to a height from hub to arch, and other load nothing to an empty one.
#[tokio::test]
async fn only_what_bears_on_a_height_is_said_of_it() {
    let (_site, ada) = shop().await;
    let job = with_block_chosen(&ada).await;
    let mut read = walk(["20 1/2", "20 1/2"], ["23 1/2", "20 3/4"]).to_vec();
    read.extend([("otherwise_load", "yes"), ("otherwise_floor", "yes")]);
    let proof = ada.fill(&format!("{job}/proof"), &read).await;
    assert!(!proof.figure("Rear, empty").1.contains("no proof yet"), "{}", proof.text(".figures"));
    let (_, note, _) = proof.figure("Rear, loaded");
    assert!(note.ends_with("no proof yet: other load, or elsewhere"), "{note}");
}
