//! Parts by what their box says: what the form begins with, what is told of them, and what is refused.

use reqwest::StatusCode;

use crate::{Visitor, consider, measured_half_ton, shop};

async fn rests_on(ada: &Visitor, job: &str, springs: &[(&str, &str)]) {
    let sheet = ada.get(&format!("{job}/intake")).await.form("form[action$='/intake/sheet']");
    ada.send(&sheet.with(springs)).await;
}

#[tokio::test]
async fn helpers_and_rubbers_are_predicted_by_their_capacity() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert_eq!((options.field("helper_travel").0, options.field("rubber_height").0), ("6".into(), "5".into()), "what is usual");
    let helpers = [("kind", "helper_by_capacity"), ("helper_capacity", "1,200"), ("helper_gap", "1/2")];
    let page = consider(&ada, &job, &helpers).await;
    assert_eq!(page.text(".option h3"), "Helper springs for 1,200 lb together, gap 1/2 in");
    // The same helpers by the rate that the capacity comes to over 6 in.
    let by_rate = [("kind", "helper_spring"), ("helper_rate", "200"), ("engagement_gap", "1/2")];
    let measured = consider(&ada, &job, &by_rate).await;
    let height = |page: &crate::Page| page.figure("Rear, loaded").0.split('±').next().map(|said| said.trim().to_owned());
    assert_eq!(height(&page), height(&measured));
    let (_, _, sum) = page.figure("Rear, loaded");
    assert!(sum.contains("200 lb/in") && sum.contains("± 25%"), "{sum}");
    let rubber = consider(&ada, &job, &[("kind", "rubber_by_capacity"), ("rubber_capacity", "2,000")]).await;
    assert_eq!(rubber.text(".option h3"), "Load rubber for 2,000 lb each, clearance 1/2 in");
    assert!(rubber.figure("Rear, loaded").1.contains("from now"), "{}", rubber.text("main"));
}

#[tokio::test]
async fn a_part_that_is_pressed_past_its_capacity_is_ruled_out() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    // Two inches and a half of squash are more than half of 2 in.
    let small = [("kind", "rubber_by_capacity"), ("rubber_capacity", "150"), ("rubber_height", "2"), ("rubber_clearance", "0")];
    let page = consider(&ada, &job, &small).await;
    let main = page.text("main");
    assert!(main.contains("past its capacity") && main.contains("Ruled out by its own capacity"), "{main}");
    assert!(page.attributes("form[action$='/choose']", "action").is_empty(), "it cannot be chosen");
    let enough = [("kind", "rubber_by_capacity"), ("rubber_capacity", "3,000")];
    let page = consider(&ada, &job, &enough).await;
    assert!(!page.text("main").contains("Ruled out by its own capacity"), "{}", page.text("main"));
}

#[tokio::test]
async fn new_springs_lift_by_what_they_are_sold_for_and_what_the_old_have_set() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let packs = consider(&ada, &job, &[("kind", "new_packs"), ("packs_lift", "1"), ("packs_set", "3/4")]).await;
    assert_eq!(packs.status, StatusCode::OK, "{}", packs.text("form.try"));
    assert!(packs.figure("Rear, empty").1.starts_with("+1 3/4 in from now"), "{}", packs.text("main"));
    assert_eq!(packs.text(".option h3"), "New packs sold as 1 in of lift");
    // Softer ones come down further under the load.
    let softer = [("kind", "new_packs"), ("packs_lift", "1"), ("packs_set", "3/4"), ("packs_added_rate", "-60")];
    let softer = consider(&ada, &job, &softer).await;
    let rise = |page: &crate::Page| page.figure("Rear, loaded").1.split(" in").next().map(str::to_owned);
    assert!(rise(&softer) != rise(&packs), "{:?}", rise(&softer));
    let coils = consider(&ada, &job, &[("kind", "new_coils"), ("coils_lift", "1")]).await;
    assert_eq!(coils.status, StatusCode::UNPROCESSABLE_ENTITY, "it rests on leaves");
    rests_on(&ada, &job, &[("rear_spring", "coil"), ("front_spring", "coil")]).await;
    let coils = [("kind", "new_coils"), ("coils_lift", "2"), ("coils_old_lift", "1"), ("coils_set", "1/2"), ("axles", "front")];
    let front = consider(&ada, &job, &coils).await;
    assert_eq!(front.text(".option h3"), "New coils sold as 2 in of lift in place of 1 in; front axle");
    let strut =
        [("kind", "strut_spacer"), ("strut_spacer", "1"), ("pivot_to_strut", "7"), ("pivot_to_wheel", "14"), ("axles", "front")];
    let strut = consider(&ada, &job, &strut).await;
    assert!(strut.text("main").contains("+2 in from now"), "{}", strut.text("main"));
    let fronts = |page: &crate::Page| page.texts(".compare th").iter().filter(|row| row.starts_with("Front, ")).count();
    assert_eq!(fronts(&strut), 2, "what moves the front says where it ends: {:?}", strut.texts("th"));
    let bare = consider(&ada, &job, &[("kind", "measured_coils"), ("coil_new_height", "15"), ("coil_old_height", "")]).await;
    assert_eq!(bare.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(!bare.field("coil_old_height").1.is_empty(), "what is missing is said at its field");
}

#[tokio::test]
async fn bags_are_predicted_at_their_pressure_in_each_case_and_refused_past_what_they_take() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let options = ada.get(&format!("{job}/options")).await;
    assert_eq!((options.field("bag_least").0, options.field("bag_most").0), ("5".into(), "100".into()), "what is usual");
    let bags = [("kind", "air_helper"), ("bag_capacity", "1,000"), ("bag_pressure", "10"), ("set_loaded", "60")];
    let page = consider(&ada, &job, &bags).await;
    assert_eq!(page.status, StatusCode::OK, "{}", page.text("form.try"));
    assert_eq!(page.text(".option h3"), "Air helpers at 10 psi");
    let main = page.text("main");
    assert!(main.contains("set for Loaded: 60 psi") && main.contains("A charged bag stores energy"), "{main}");
    let rise = |page: &crate::Page, row: &str| {
        let words = page.figure(row).1;
        words.strip_prefix('+').and_then(|words| words.split(" in from now").next().map(str::to_owned)).expect("it rises")
    };
    let at_ten = consider(&ada, &job, &bags[..3]).await;
    assert_eq!(rise(&page, "Rear, empty"), rise(&at_ten, "Rear, empty"));
    assert_ne!(rise(&page, "Rear, loaded"), rise(&at_ten, "Rear, loaded"), "more air with the load on");
    for (field, value) in
        [("bag_pressure", "120"), ("bag_pressure", "3"), ("set_loaded", "101"), ("set_loaded", "0"), ("bag_most", "4")]
    {
        let refused = consider(&ada, &job, &[&bags[..], &[(field, value)]].concat()).await;
        assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY, "{field} {value}");
        let at = if field == "bag_most" { "bag_pressure" } else { field };
        assert!(!refused.field(at).1.is_empty(), "{field} {value}: {}", refused.text("form.try"));
    }
    let past = consider(&ada, &job, &[&bags[..], &[("bag_pressure", "400")]].concat()).await;
    assert!(past.field("bag_pressure").1.contains("too large for a pressure"), "{:?}", past.field("bag_pressure"));
    // Inside coils only where there are coils.
    let in_coils = [("kind", "bags_in_coils"), ("coil_bag_diameter", "3 1/4"), ("coil_bag_pressure", "140 kPa")];
    assert_eq!(consider(&ada, &job, &in_coils).await.status, StatusCode::UNPROCESSABLE_ENTITY);
    rests_on(&ada, &job, &[("rear_spring", "coil"), ("front_spring", "coil")]).await;
    let page = consider(&ada, &job, &in_coils).await;
    assert_eq!(page.text(".option h3"), "Bags inside the coils at 140 kPa");
    let over = consider(&ada, &job, &[&in_coils[..2], &[("coil_bag_pressure", "43")]].concat()).await;
    assert!(over.field("coil_bag_pressure").1.contains("take 5 psi to 35 psi"), "{:?}", over.field("coil_bag_pressure"));
}

#[tokio::test]
async fn what_goes_with_a_lift_is_asked_for_in_the_shops_own_terms() {
    let (_site, ada) = shop().await;
    let job = measured_half_ton(&ada).await;
    let name = |page: &crate::Page| page.text(".option h3");
    // Of an overload leaf that nobody looked at nothing is said.
    let unseen = consider(&ada, &job, &[("kind", "overload_pads"), ("pads_rear", "1")]).await;
    assert!(unseen.figure("Rear, loaded").0.contains("overload leaf unread"), "{}", unseen.text(".option"));
    ada.fill(&format!("{job}/tape"), &[("loaded.contact_left_rear", "bears")]).await;
    for (typed, said, sum) in [
        (
            &[("kind", "tires"), ("tire_diameter", "33"), ("tire_old_diameter", "31 1/2")][..],
            "Tires 33 in across in place of 31 1/2 in",
            "0.75 in",
        ),
        (&[("kind", "stop_extension"), ("stop_extension", "1/2")], "Stops made 1/2 in longer", "0.50 in"),
        (
            &[("kind", "tapered_block"), ("taper_front", "1 3/4"), ("taper_rear", "2 1/4"), ("taper_length", "6")],
            "Tapered block, front 1 3/4 in, rear 2 1/4 in",
            "2.00 in",
        ),
        (&[("kind", "overload_pads"), ("pads_rear", "1")], "Overload contacts raised rear 1 in", "0.50 in"),
        (&[("kind", "other_overload_leaf"), ("overload_gap", "1/2")], "Other overload leaf, gap 1/2 in wider", "0.50 in"),
    ] {
        let page = consider(&ada, &job, typed).await;
        assert_eq!(page.status, StatusCode::OK, "{said}: {}", page.text("form.try"));
        assert_eq!(name(&page), said);
        assert!(page.text(".option").contains(sum), "{said}: {}", page.text(".option"));
    }
    let taper =
        consider(&ada, &job, &[("kind", "tapered_block"), ("taper_front", "0"), ("taper_rear", "1/4"), ("taper_length", "6")])
            .await;
    assert!(taper.figure("Block turns the pinion").0.contains("2.4° nose up"), "{}", taper.text(".option"));
    let over = consider(&ada, &job, &[("kind", "spring_over"), ("axle_tube", "3"), ("axle_stack", "2")]).await;
    assert_eq!(over.status, StatusCode::UNPROCESSABLE_ENTITY, "its springs are over the axle");
    // The hitch goes with both ends: 1 + 50/wheelbase of what the rear does.
    rests_on(&ada, &job, &[("rear_overhang", "50")]).await;
    ada.fill(&format!("{job}/tape"), &[("empty.hitch", "18"), ("loaded.hitch", "15")]).await;
    let page = consider(&ada, &job, &[("kind", "lift_block"), ("thickness", "2")]).await;
    let rows = page.texts(".compare th");
    assert!(rows.contains(&"Hitch, empty".to_owned()) && rows.contains(&"Hitch, loaded".to_owned()), "{rows:?}");
}
