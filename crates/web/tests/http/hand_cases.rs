//! The main route on figures worked out by hand: measure, judge, predict.

use crate::{BLOCK, consider, measured_half_ton, near, open_half_ton, shop, tape};

/// By hand: 1,000 lb / (21 1/2 − 18 13/16) in = 372 lb/in; a 2 in block moves both heights by 2 in.
#[tokio::test]
async fn a_block_lifts_the_measured_half_ton_by_its_height_at_any_load() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let verdict = ada.get(&format!("{job}/verdict")).await;
    let (rate, note, sum) = verdict.figure("Rear axle rate, both springs");
    assert_eq!(rate, "372 lb/in");
    assert!(note.starts_with("rough"), "two heights fit more than one story: {note}");
    assert!(sum.contains("1,000 lb / 2.69 in = 372 lb/in") && sum.contains("JCGM 100:2008"), "{sum}");
    assert_eq!(verdict.figure("Rear sag under the load").0, "2 11/16 in");
    assert_eq!(verdict.figure("Rake loaded").0, "−1 11/16 in");
    let options = consider(&ada, &job, &BLOCK).await;
    let (empty, _, sum) = options.figure("Rear, empty");
    assert!(empty.starts_with("23 1/2 in ±"), "{empty}");
    assert!(sum.contains("= 23.50 in (23 1/2 in)"), "{sum}");
    assert!(options.figure("Rear, loaded").2.contains("= 20.81 in (20 13/16 in)"), "as shown");
    assert_eq!(options.figure("Ride frequency, loaded").1, "as before");
    let cautions = options.text(".option .cautions");
    for all in
        ["slack in brake hoses", "shaft angle", "center bolt sits in its hole", "Sway bar links", "Wheel nuts", "headlight aim"]
    {
        assert!(cautions.contains(all), "{all} is heeded before the choice, not after it: {cautions}");
    }
    assert!(options.text(".option .cautions").contains("raises no axle"));
}

/// By hand: 372.1 x + 200 (x − 1) = 1,000 gives x = 2.098 in, so 21.50 − 2.10 = 19.40 in.
#[tokio::test]
async fn helpers_bear_only_past_their_gap() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let options = consider(&ada, &job, &[("kind", "helper_spring"), ("helper_rate", "200"), ("engagement_gap", "1")]).await;
    assert!(options.figure("Rear, empty").2.contains("= 21.50 in (21 1/2 in)"));
    assert!(options.figure("Rear, loaded").2.contains("= 19.40 in (19 3/8 in)"));
    // By hand, at 3,250 − 450 lb sprung: √(572.1 × 386.1 / 2,800) / 2π = 1.41 Hz, against 1.14 Hz without them.
    assert_eq!(options.figure("Ride frequency, loaded").0, "1.41 Hz");
    assert_eq!(options.figure("Ride frequency, loaded").1, "1.14 Hz before");
    assert_eq!(options.text(".considered strong"), "Helper springs, 200 lb/in together, gap 1 in");
}

/// By hand, with the same 372.1 lb/in: an added leaf of 90 lb/in lifting 1 in empty sits at
/// 22.5 − 1,000 / 462.1 = 20.34 in; a pack re-arched by 1 1/2 in at 18.81 + 1.5 = 20.31 in.
#[tokio::test]
async fn added_leaves_and_re_arched_packs_are_predicted_from_the_same_rate() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let leaf = consider(&ada, &job, &[("kind", "added_leaf"), ("leaf_rate", "90"), ("lift", "1")]).await;
    assert!(leaf.figure("Rear, empty").2.contains("= 22.50 in"), "{}", leaf.figure("Rear, empty").2);
    assert!(leaf.figure("Rear, loaded").2.contains("= 20.34 in"), "{}", leaf.figure("Rear, loaded").2);
    let arched = consider(&ada, &job, &[("kind", "rearched_pack"), ("free_height_gained", "1 1/2")]).await;
    assert!(arched.figure("Rear, loaded").2.contains("= 20.31 in"), "{}", arched.figure("Rear, loaded").2);
    assert!(arched.text(".option .cautions").contains("sound pack"));
}

/// By hand: rubbers 1/2 in clear that give 400 lb/in apiece: 372.1 x + 800 (x − 0.5) = 1,000, x = 1.194 in.
#[tokio::test]
async fn a_load_rubber_is_predicted_from_its_force_table() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let table = "0 ; 0\n1 in ; 400 lb\n2 in ; 800 lb\n3 in = 1,200 lb";
    let rubber = [("kind", "load_rubber"), ("clearance", "1/2"), ("force_table", table)];
    let options = consider(&ada, &job, &rubber).await;
    let sum = options.figure("Rear, loaded").2;
    assert!(sum.contains("= 20.31 in"), "{sum}");
    let again = ada.form(&format!("{job}/options")).await;
    assert_eq!(again.value("force_table").replace("\r\n", "\n"), table);
}

/// 150 lb moves this rear 3/8 in, and the tape is good to some 1/4 in: no rate can be told from that.
#[tokio::test]
async fn too_little_load_gives_no_rate_but_blocks_all_the_same() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let verdict = ada.fill(&format!("{job}/tape"), &tape(["21 1/2", "21 1/8"], "150")).await;
    let (rate, note, sum) = verdict.figure("Rear axle rate, both springs");
    assert_eq!(rate, "too weak to say");
    assert!(note.starts_with("put on about 4"), "{note}");
    assert!(sum.contains("150 lb") && sum.contains("0.38 in"), "{sum}");
    let block = consider(&ada, &job, &BLOCK).await;
    assert!(block.figure("Rear, empty").0.starts_with("23 1/2 in"));
    assert!(block.figure("Rear, loaded").0.starts_with("23 1/8 in"));
    let helper = [("kind", "helper_spring"), ("helper_rate", "200"), ("engagement_gap", "1/8")];
    let helper = consider(&ada, &job, &helper).await;
    assert!(helper.figure("Rear, empty").0.starts_with("21 1/2 in"));
    let (loaded, note, _) = helper.figure("Rear, loaded");
    assert_eq!(loaded, "too weak to say");
    assert!(note.contains("a block on both sides needs none"), "{note}");
}

#[tokio::test]
async fn the_ground_datum_takes_the_tyre_out_of_the_rate() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let mut values = tape(["40", "37"], "1,000");
    values[0] = ("datum", "ground_to_arch");
    let verdict = ada.fill(&format!("{job}/tape"), &values).await;
    // By hand: two tyre ends of 1,450 lb/in give 1,000 / 2,900 = 0.34 in, so 1,000 / (3 − 0.34) = 377 lb/in.
    let (rate, _, sum) = verdict.figure("Rear axle rate, both springs");
    assert!(near(&rate, 377.0, 0.01), "{rate}");
    assert!(sum.contains("of it the tires 0.34 in"), "{sum}");
    assert!(verdict.figure("Of the sag, the tires").2.contains("assumed"));
}

#[tokio::test]
async fn several_readings_of_a_corner_are_averaged_and_told_apart() {
    let (_site, ada) = shop().await;
    let job = open_half_ton(&ada).await;
    let mut values = tape(["21 1/2", "18 13/16"], "1,000");
    values.extend([("empty.rear_left.1", "21 5/8"), ("empty.stop_gap.0", "3 1/2"), ("loaded.stop_gap.0", "13/16")]);
    let verdict = ada.fill(&format!("{job}/tape"), &values).await;
    // Rear left 21 9/16, rear right 21 1/2: the middle is 21.53.
    assert!(verdict.figure("Rear sag under the load").2.contains("21.53 in − 18.81 in = 2.72 in"));
    assert_eq!(verdict.figure("Lean rear, empty").0, "right 1/16 in low");
    let again = ada.get(&format!("{job}/tape")).await;
    assert_eq!(again.field("empty.rear_left.1").0, "21 5/8");
    let options = consider(&ada, &job, &BLOCK).await;
    assert_eq!(options.figure("Bump travel left, loaded").0, "2 13/16 in");
}
