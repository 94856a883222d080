//! A tandem trailer by touch on a phone, and a sum by keyboard.

use crate::site::Site;
use crate::workbench::at;
use thirtyfour::prelude::*;

#[tokio::test]
async fn a_trailer_is_opened_and_measured_on_a_phone() {
    at(Site::empty(), "trailer", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Ada").await?;
        bench.goto("/jobs/new").await?;
        bench.pick("class-van").await?;
        assert!(!bench.find("#axle_spread").await?.is_displayed().await?, "a van has no axles to set apart");
        bench.pick("class-tandem_trailer").await?;
        assert!(bench.find("#axle_spread").await?.is_displayed().await?);
        bench.pick("rear_wheels-single").await?;
        let typed = [("label", "tandem"), ("axle_spread", "34"), ("wheelbase", "168"), ("front_rating", "1000")];
        for (name, text) in typed.into_iter().chain([("rear_rating", "7000"), ("kerb_front", "420"), ("kerb_rear", "2480")]) {
            bench.type_in(name, text).await?;
        }
        bench.send().await?;
        bench.wait_for_path("/tape").await?;
        assert_eq!(bench.text(".station-front_left .station-name").await?, "Coupler, left");
        assert!(bench.find("#datum-ground_to_arch").await?.is_selected().await?, "the only way is picked already");
        for (state, coupler, rear) in [("empty", "19 1/2", "19 1/4"), ("loaded", "19 1/4", "17 1/4")] {
            for side in ["left", "right"] {
                bench.type_in(&format!("{state}.front_{side}.0"), coupler).await?;
                bench.type_in(&format!("{state}.rear_{side}.0"), rear).await?;
            }
        }
        bench.pick("load_kind-placed").await?;
        bench.type_in("load_weight", "2600").await?;
        bench.type_in("load_distance", "8").await?;
        bench.pick("load_side-ahead").await?;
        bench.send().await?;
        bench.wait_for_path("/verdict").await?;
        bench.wait_for(".figures", "lb/in").await?;
        let wide: bool = bench
            .page
            .execute("return document.documentElement.scrollWidth > document.documentElement.clientWidth", vec![])
            .await?
            .convert()?;
        assert!(!wide, "nothing may reach past the screen's edge");
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn a_sum_is_worked_out_by_keyboard_and_keeps_what_was_typed() {
    at(Site::empty(), "sums", async |bench| {
        bench.sign_on("Ada").await?;
        bench.goto("/sums/shim").await?;
        bench.type_in("thick", "1/2").await?;
        bench.type_in("thin", "1/4").await?;
        bench.find("#length").await?.send_keys("six" + Key::Enter).await?;
        bench.wait_for("#length-said .problem", "six").await?;
        assert_eq!(bench.value("thick").await?, "1/2");
        bench.find("#length").await?.clear().await?;
        bench.find("#length").await?.send_keys("6" + Key::Enter).await?;
        // atan(0.25 / 6).
        bench.wait_for("#answer .figure-value", "2.4°").await?;
        Ok(())
    })
    .await;
}
