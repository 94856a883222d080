//! What is found rules corrections out, adds to the job, and stays with its photographs and its history.

use reqwest::StatusCode;

use crate::{BLOCK, consider, measured_half_ton, shop};

const LEAF: [(&str, &str); 3] = [("kind", "added_leaf"), ("leaf_rate", "150"), ("lift", "1")];

#[tokio::test]
async fn worn_bushes_rule_out_a_leaf_and_leave_a_block() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/look-over");
    let played = [("eyes_and_bushes_grade", "put_right"), ("eyes_and_bushes_bush_play", "1/4")];
    let saved = ada.fill(&path, &played).await;
    assert!(saved.text(".additions").contains("new bushings"), "{}", saved.text(".picture"));
    let refused = consider(&ada, &job, &LEAF).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(refused.text(".picks .problem").contains("bushing worn out"), "{}", refused.text(".picks .problem"));
    let block = consider(&ada, &job, &BLOCK).await;
    assert_eq!(block.status, StatusCode::OK);
    assert!(block.text(".additions-line").contains("new bushings"));
}

#[tokio::test]
async fn a_cracked_leaf_stops_everything_also_what_was_considered_before() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let choose = consider(&ada, &job, &BLOCK).await.form("form[action$='/choose']");
    ada.fill(&format!("{job}/look-over"), &[("leaves_grade", "watch"), ("leaves_leaf_cracked", "yes")]).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert!(options.text(".overload").contains("leaf cracked (49 CFR 393.207"), "{}", options.text(".overload"));
    assert!(options.texts("form.try, .option").is_empty());
    let refused = ada.send(&choose).await;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(refused.text("main").contains("Repair comes first"));
}

#[tokio::test]
async fn a_defect_without_a_grade_or_graded_fine_is_asked_about() {
    let (_site, ada) = shop().await;
    let path = format!("{}/look-over", measured_half_ton(&ada).await);
    let refused = ada.fill(&path, &[("clips_clip_open_or_missing", "yes")]).await;
    assert!(refused.text(".area.has-problem .problem").contains("Give it a grade too"));
    let fine = ada.fill(&path, &[("clips_clip_open_or_missing", "yes"), ("clips_grade", "fine")]).await;
    assert!(fine.text(".area.has-problem .problem").contains("it is not fine"));
}

#[tokio::test]
async fn a_photograph_is_kept_shown_and_taken_off_and_what_is_none_is_refused() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let album = format!("{job}/photographs");
    let page = ada.get(&format!("{job}/tape")).await;
    let token = page.form("form[data-photo]").value("token").to_owned();
    let texts = [("token", token.as_str()), ("back", "tape"), ("subject", "rear_left")];
    let refused = ada.send_file(&album, &texts, b"%PDF-1.7".to_vec()).await;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(refused.text("main").contains("no photograph this program can read"));
    let huge = ada.send_file(&album, &texts, vec![0xFF; 17 * 1024 * 1024]).await;
    assert_eq!(huge.status, StatusCode::PAYLOAD_TOO_LARGE);
    // Twice the same form: kept once.
    for _ in 0..2 {
        let kept = ada.send_file(&album, &texts, SMALL_PNG.to_vec()).await;
        assert!(kept.path.ends_with("/tape"), "{}: {}", kept.path, kept.text("main"));
        assert_eq!(kept.texts(".album li strong"), ["Rear left"]);
    }
    let picture = ada.get(&format!("{job}/tape")).await.attributes(".album img", "src");
    assert_eq!(ada.get(&picture[0]).await.status, StatusCode::OK);
    let without = ada.press(&format!("{job}/tape"), "/withdraw").await;
    assert!(without.texts(".album li").is_empty());
    let history = ada.get(&format!("{job}/history")).await.texts(".events li");
    assert!(history.iter().any(|event| event.ends_with("Ada sent a photograph")), "{history:?}");
    assert!(history.last().unwrap().ends_with("Ada opened the job"), "{history:?}");
}

/// One grey pixel.
const SMALL_PNG: &[u8] = include_bytes!("../vendor/pixel.png");

#[tokio::test]
async fn on_coils_no_leaf_and_no_block_is_offered_or_chosen() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let considered = consider(&ada, &job, &BLOCK).await;
    let choose = considered.form("form[action$='/choose']");
    let kinds = |page: &crate::Page| page.texts("form.try .picks label").join(" ");
    assert!(kinds(&considered).contains("Add-a-leaf"), "{}", kinds(&considered));
    let sheet = async || ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet().await.with(&[("rear_spring", "coil")])).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert!(!kinds(&options).contains("Add-a-leaf") && !kinds(&options).contains("Block height"), "{}", kinds(&options));
    assert!(!kinds(&options).contains("Helper springs"), "steel helpers lie on a pack: {}", kinds(&options));
    assert!(kinds(&options).contains("Load rubber"), "{}", kinds(&options));
    let bench = ada.get(&format!("{job}/bench")).await;
    assert_eq!(bench.status, StatusCode::CONFLICT);
    assert!(bench.text("main").contains("no leaf springs"), "{}", bench.text("main"));
    assert!(options.text(".not-here").contains("coil springs"), "{}", options.text("form.try"));
    assert!(options.text(".option .ruled-out").contains("coil springs"), "{}", options.text("main"));
    assert_eq!(options.text(".option .aim-verdict"), "Ruled out.");
    assert_eq!(ada.send(&choose).await.status, StatusCode::CONFLICT);
    let typed = ada.send(&ada.form(&format!("{job}/options")).await.with(&LEAF)).await;
    assert_eq!(typed.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(typed.text(".picks .problem").contains("work on leaves"), "{}", typed.text("form.try"));
    ada.send(&sheet().await.with(&[("rear_spring", "leaf"), ("rear_over", "under")])).await;
    let under = ada.get(&format!("{job}/options")).await;
    assert!(under.text(".option .ruled-out").contains("lowers the vehicle"), "{}", under.text("main"));
    assert!(kinds(&under).contains("Add-a-leaf"), "a leaf still goes into a pack under its axle");
}

#[tokio::test]
async fn a_block_that_is_there_comes_out_and_its_height_is_taken_off() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let by_itself = consider(&ada, &job, &BLOCK).await.figure("Rear, empty").1;
    assert!(by_itself.starts_with("+2 in from now"), "{by_itself}");
    let noted = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&noted.with(&[("done_rear_block", "yes"), ("done_rear_block_size", "1 1/4")])).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert!(options.text(".option .ruled-out").contains("never put on another"), "{}", options.text("main"));
    let stacked = consider(&ada, &job, &BLOCK).await;
    assert_eq!(stacked.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(options.field("replaces").0, "1 1/4", "what Intake notes comes out");
    let exchanged = [("kind", "exchanged_block"), ("new_thickness", "3 1/4")];
    let worked = consider(&ada, &job, &exchanged).await;
    assert!(worked.figure("Rear, empty").1.starts_with("+2 in from now"), "{}", worked.text("main"));
    assert!(worked.text(".option h3").contains("3 1/4 in block in place of 1 1/4 in"), "{}", worked.text(".option h3"));
    let other = consider(&ada, &job, &[exchanged[0], exchanged[1], ("replaces", "2")]).await;
    assert!(other.field("replaces").1.contains("Intake notes another height"), "{}", other.text("form.try"));
}

#[tokio::test]
async fn a_tapered_block_goes_in_for_the_block_that_is_there_and_needs_one_there() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let taper =
        [("kind", "exchanged_taper"), ("new_taper_front", "2 3/8"), ("new_taper_rear", "2 7/8"), ("new_taper_length", "5 3/4")];
    let bare = consider(&ada, &job, &[&taper[..], &[("taper_replaces", "1")]].concat()).await;
    assert_eq!(bare.status, StatusCode::UNPROCESSABLE_ENTITY, "nothing is there to come out");
    let noted = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&noted.with(&[("done_rear_block", "yes"), ("done_rear_block_size", "1")])).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert_eq!(options.field("taper_replaces").0, "1", "what Intake notes comes out");
    assert_eq!(options.field("taper_of_old").0, "0", "blocks are straight as a rule");
    let worked = consider(&ada, &job, &taper).await;
    assert!(worked.figure("Rear, empty").1.starts_with("+1 5/8 in from now"), "{}", worked.text("main"));
    assert!(worked.text(".option").contains("5°") || worked.text(".option").contains("5.0°"), "{}", worked.text(".option"));
    let one_side = consider(&ada, &job, &[&taper[..], &[("side", "left")]].concat()).await;
    assert_eq!(one_side.status, StatusCode::UNPROCESSABLE_ENTITY, "one alone would twist the axle");
}

#[tokio::test]
async fn what_was_chosen_and_no_longer_fits_is_praised_on_no_page() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.send(&consider(&ada, &job, &BLOCK).await.form("form[action$='/choose']")).await;
    assert!(!ada.get(&job).await.text("main").contains("Ruled out"));
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("rear_spring", "air")])).await;
    for page in [job.clone(), format!("{job}/options")] {
        let text = ada.get(&page).await.text("main");
        assert!(text.contains("Ruled out.") && !text.contains("eets the aim"), "{page}: {text}");
    }
}

/// An inch of slack, and a block of two: the hose comes an inch short, and that is said with the option, before it is chosen.
#[tokio::test]
async fn what_an_option_does_to_hose_shock_and_u_bolts_is_told_with_it() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let taken = [
        ("hoses_and_wires_grade", "fine"),
        ("hoses_and_wires_hose_slack", "1"),
        ("shocks_grade", "fine"),
        ("shocks_shock_rod", "2 1/2"),
        ("u_bolts_and_seats_grade", "fine"),
        ("u_bolts_and_seats_u_bolt_leg", "9 1/2"),
    ];
    let page = ada.fill(&format!("{job}/look-over"), &taken).await;
    assert_eq!(page.status, StatusCode::OK, "{}", page.text("main"));
    let options = consider(&ada, &job, &BLOCK).await;
    let (hose, why, sum) = options.figure("Hose slack at full droop");
    assert_eq!(hose, "1 in short");
    assert!(why.contains("1 in measured, the rear axle hangs lower by 2 in. A longer brake hose"), "{why}");
    assert!(sum.contains("1.00 in − 2.00 in = −1.00 in"), "{sum}");
    assert_eq!(options.figure("Rear shock draws out further, empty").0, "1/2 in left");
    assert_eq!(options.figure("Bump stop").0, "2.00 in further off");
    assert_eq!(options.figure("U-bolt leg").0, "11 1/2 in");
    assert_eq!(options.figure("Caster, front").0, "−0.8°");
    let along = options.text(".additions-line");
    assert!(along.contains("a longer brake hose") && along.contains("longer shocks"), "{along}");
    // A hose that comes short is no small print: with nothing that makes it longer the block is not chosen.
    let main = options.text("main");
    assert!(main.contains("Ruled out by what is too short: it needs a longer brake hose"), "{main}");
    assert!(options.attributes("form[action$='/choose']", "action").is_empty(), "it cannot be chosen");
    // The repair that makes it good is offered on Look-over, and one on the job lets the block go.
    let repaired = ada.fill(&format!("{job}/look-over"), &[("repair_longer_hose", "yes")]).await;
    assert_eq!(repaired.status, StatusCode::OK, "{}", repaired.text("main"));
    let options_now = ada.get(&format!("{job}/options?newest=yes")).await;
    assert!(!options_now.text("main").contains("Ruled out by what is too short"), "{}", options_now.text("main"));
    let form = ada.form(&format!("{job}/look-over")).await;
    let taken_off: Vec<(String, String)> =
        form.fields().iter().filter(|(name, _)| name != "repair_longer_hose").cloned().collect();
    ada.post(&format!("{job}/look-over"), &taken_off).await;
    // Put together with longer hoses and shocks it is; without the shocks not yet.
    let with = |page: &crate::Page| page.attributes("input[name=with]:not([value=''])", "value").remove(0);
    let hoses = consider(&ada, &job, &[("kind", "brake_hoses"), ("hose_longer", "3"), ("with", &with(&options))]).await;
    assert_eq!(hoses.figure("Hose slack at full droop").0, "2 in left");
    assert!(!hoses.text("main").contains("Ruled out by what is too short"), "{}", hoses.text("main"));
    assert!(!hoses.attributes("form[action$='/choose']", "action").is_empty());
    let legs = consider(&ada, &job, &[("kind", "u_bolts"), ("u_bolt_leg", "11"), ("with", &with(&hoses))]).await;
    assert!(legs.figure("U-bolt leg").1.contains("the new ones, 11 in, are too short"), "{}", legs.text("main"));
    assert!(legs.text("main").contains("the legs of its U-bolts are too short"), "{}", legs.text("main"));
    // What goes in front alone is sent there, and a shock is longer open than closed.
    let behind = consider(&ada, &job, &[("kind", "differential_drop"), ("differential_dropped", "1")]).await;
    assert_eq!(behind.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(behind.text("main").contains("Front only: differential drop goes on the front axle"), "{}", behind.text("main"));
    let shocks = [("shock_new_open", "15"), ("shock_old_open", "24"), ("shock_new_closed", "16"), ("shock_old_closed", "15")];
    let shocks = consider(&ada, &job, &[&[("kind", "shocks")], &shocks[..]].concat()).await;
    let text = "New one, drawn out must be more than new one, pressed together: check both.";
    assert!(shocks.text("main").contains(text), "{}", shocks.text("main"));
    // A helper takes nothing from the hose.
    let helper = [("kind", "helper_spring"), ("helper_rate", "200"), ("engagement_gap", "1")];
    let options = consider(&ada, &job, &helper).await;
    let told = options.texts(".consequences .figure");
    assert!(told.iter().all(|told| told.contains("Caster") || told.contains("leaning")), "{told:?}");
}

#[tokio::test]
async fn a_rubber_that_never_touches_says_so_before_it_is_chosen() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let rubber = [("kind", "load_rubber"), ("clearance", "4"), ("force_table", "0 ; 0\n1/2 ; 400\n1 ; 1,200")];
    let options = consider(&ada, &job, &rubber).await;
    assert_eq!(options.figure("It bears").0, "never", "{}", options.text(".option"));
    let near = [("kind", "load_rubber"), ("clearance", "1"), ("force_table", "0 ; 0\n1/2 ; 400\n1 ; 1,200")];
    let told = consider(&ada, &job, &near).await.texts(".consequences .figure");
    assert!(!told.iter().any(|told| told.contains("It bears")), "{told:?}");
}

#[tokio::test]
async fn a_finding_stands_to_be_put_right_and_bars_until_its_repair_is_on_the_job() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/look-over");
    let found = [
        ("eyes_and_bushes_grade", "put_right"),
        ("eyes_and_bushes_bush_worn", "yes"),
        ("shocks_grade", "put_right"),
        ("shocks_shock_mount_damaged", "yes"),
        ("frame_grade", "put_right"),
        ("frame_words", "step bracket bent under the left rail"),
    ];
    let saved = ada.fill(&path, &found).await;
    let list = saved.text(".additions");
    for words in ["new bushings", "shock mount", "step bracket bent under the left rail"] {
        assert!(list.contains(words), "{words}: {list}");
    }
    assert_eq!(consider(&ada, &job, &LEAF).await.status, StatusCode::UNPROCESSABLE_ENTITY);
    ada.fill(&path, &[("repair_new_bushes", "yes")]).await;
    let options = consider(&ada, &job, &LEAF).await;
    assert_eq!(options.status, StatusCode::OK, "{}", options.text("main"));
    assert!(options.text(".additions-line").contains("step bracket"), "{}", options.text(".option"));
    assert!(ada.get(&job).await.text(".additions-line").contains("new bushings"));
    // A worn eye is not cured by a bush.
    ada.fill(&path, &[("eyes_and_bushes_eye_worn", "yes")]).await;
    assert!(ada.get(&format!("{job}/options")).await.text(".ruled-out").contains("eye worn"));
}

/// On a phone under a truck: the few that hurt people by a tap each, the rest by one.
#[tokio::test]
async fn the_rest_is_fine_in_one_go_but_for_what_needs_a_look_of_its_own() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let path = format!("{job}/look-over");
    let page = ada.fill(&path, &[("clips_grade", "watch"), ("rest", "fine")]).await;
    assert_eq!(page.status, StatusCode::OK, "{}", page.text("main"));
    let form = ada.form(&path).await;
    assert_eq!((form.value("clips_grade"), form.value("shocks_grade")), ("watch", "fine"));
    assert_eq!(form.value("leaves_grade"), "", "nobody looked at the leaves");
    let left = page.text(".missing");
    for area in [
        "Leaves",
        "U-bolts, seats, blocks",
        "Shackles and hangers",
        "Frame",
        "Brake hoses, lines, wires",
        "Ball and steering joints",
    ] {
        assert!(left.contains(area), "{area}: {left}");
    }
    assert!(!left.contains("Shocks"), "{left}");
    // Without it nothing is passed by itself.
    assert_eq!(ada.form(&format!("{job}/look-over")).await.value("frame_grade"), "");
}

#[tokio::test]
async fn a_vehicle_on_coils_is_not_asked_for_leaves_and_what_was_found_stays_in_sight() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    ada.fill(&format!("{job}/look-over"), &[("leaves_grade", "watch"), ("leaves_words", "old pack in the bed")]).await;
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(&[("rear_spring", "coil"), ("front_spring", "coil")])).await;
    let page = ada.get(&format!("{job}/look-over")).await;
    let areas = page.texts(".area legend");
    assert!(areas.contains(&"Coils or torsion bars, seats".to_owned()) && !areas.contains(&"Clips".to_owned()), "{areas:?}");
    assert!(areas.contains(&"Leaves".to_owned()), "something was found there: {areas:?}");
    assert!(page.text("main").contains("old pack in the bed"));
}
