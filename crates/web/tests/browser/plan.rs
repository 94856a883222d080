//! The plan of the work and its papers in the browser: filled in on a phone, signed with a finger, and by key.

use thirtyfour::prelude::*;

use crate::site::Site;
use crate::workbench::at;

/// What is drawn with the pointer is what is kept: on a phone, where the field is narrower than its own units.
#[tokio::test]
async fn an_estimate_is_signed_with_a_finger_on_a_phone() {
    at(Site::demo(), "plan-sign", async |bench| {
        bench.browser.resize(390, 844).await;
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/9/plan").await?;
        bench.pick("rust-some").await?;
        bench.type_in("supply.part.used.u_bolts.price", "61.50").await?;
        bench.find("#plan-form button.btn-primary").await?.click().await?;
        bench.wait_for(".plan-heads", "Soaked the evening before").await?;
        assert_eq!(bench.value("supply.part.used.u_bolts.price").await?, "61.50");
        bench.goto("/jobs/9/estimate").await?;
        bench.wait_for("main", "61.50").await?;
        let field = bench.find("[data-sign] svg").await?;
        field.scroll_into_view().await?;
        let draw = bench
            .page
            .action_chain()
            .move_to_element_center(&field)
            .click_and_hold()
            .move_by_offset(40, -20)
            .move_by_offset(30, 25);
        draw.release().perform().await?;
        let strokes = bench.value("drawn").await?;
        assert!(strokes.starts_with("M ") && strokes.matches('L').count() >= 2, "{strokes}");
        bench.type_in("signed_by", "A. Owner").await?;
        bench.find("form.sign button.btn-primary").await?.click().await?;
        bench.wait_for(".signed", "Signed by A. Owner").await?;
        let kept = bench.find(".signature path").await?.attr("d").await?;
        assert_eq!(kept.as_deref(), Some(strokes.as_str()));
        Ok(())
    })
    .await;
}

/// Without a mouse: what is cheap while it is apart is asked for by key, answered, and stands.
#[tokio::test]
async fn what_is_on_top_is_put_down_by_key() {
    at(Site::demo(), "plan-keys", async |bench| {
        bench.sign_on("Bram").await?;
        bench.goto("/jobs/9/plan").await?;
        bench.find("button[name='propose'][value='shocks']").await?.send_keys(Key::Enter + "").await?;
        bench.wait_for(".plan-extra.is-open", "What").await?;
        assert_eq!(bench.value("extra0_what").await?, "New shocks, while they are off");
        bench.type_in("extra0_price", "180").await?;
        bench.type_in("extra0_by", "owner, in person").await?;
        bench.find("[id='extra0_agreed-yes']").await?.send_keys(Key::Space + "").await?;
        bench.find("[name='extra0_by']").await?.send_keys(Key::Enter + "").await?;
        bench.until_gone("//fieldset[contains(@class, 'is-open')]").await?;
        bench.goto("/jobs/9/wrench").await?;
        assert!(!bench.text("#wrench-card").await?.contains("before the customer said yes or no"));
        Ok(())
    })
    .await;
}
