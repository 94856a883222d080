//! No serious accessibility fault on any screen, as axe-core (tests/vendor) finds them by WCAG 2.2 AA.

use crate::site::Site;
use crate::workbench::at;
use serde_json::json;

const AXE: &str = include_str!("../vendor/axe.min.js");

const FAULTS: &str = r#"
    const done = arguments[arguments.length - 1];
    const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];
    axe.run(document, { runOnly: tags, resultTypes: ["violations"] }).then((found) => done(found.violations
        .filter((fault) => ["serious", "critical"].includes(fault.impact))
        .map((fault) => `${fault.id}: ${fault.nodes.slice(0, 3).map((node) => node.target.join(" ")).join(" | ")}`)));
"#;

#[tokio::test]
async fn no_screen_has_a_serious_fault_on_either_ground_or_on_a_phone() {
    at(Site::demo(), "axe", async |bench| {
        bench.sign_on("Odalys").await?;
        let job = ["", "/intake", "/load", "/tape", "/look-over", "/verdict", "/aim", "/options", "/proof", "/drive", "/history"];
        let mut paths: Vec<String> = ["/", "/sign-in", "/jobs/new", "/sums/shim", "/nowhere"].map(str::to_owned).to_vec();
        paths.extend(job.iter().map(|stage| format!("/jobs/6{stage}")));
        paths.extend(
            [
                "/jobs/2/options",
                "/jobs/1/proof",
                "/jobs/5/tape",
                "/jobs/7/bench",
                "/jobs/7/bench/re-arch",
                "/jobs/7/bench/sheet",
                "/jobs/3/bench",
                "/jobs/4/takes",
                "/jobs/4/finder",
                "/jobs/9/wrench",
                "/jobs/9/plan",
                "/jobs/11/estimate",
                "/jobs/10/proof/settled",
                "/jobs/10/handover",
                "/jobs/4/what-if?p0_kind=lift_block&p0_thickness=2&load_from=loaded&more=200",
                "/jobs/4/shelf",
                "/shelf",
                "/shelf/new",
                "/shelf/import",
            ]
            .map(str::to_owned),
        );
        for (ground, width) in [("light", 1280), ("dark", 1280), ("light", 390)] {
            let media = json!({"features": [{"name": "prefers-color-scheme", "value": ground}]});
            bench.browser.tell("Emulation.setEmulatedMedia", media).await;
            bench.browser.resize(width, 844).await;
            for path in &paths {
                bench.goto(path).await?;
                bench.page.execute(AXE, vec![]).await?;
                let faults: Vec<String> = bench.page.execute_async(FAULTS, vec![]).await?.convert()?;
                assert_eq!(faults, Vec::<String>::new(), "{path} on {ground} ground, {width} wide");
            }
        }
        Ok(())
    })
    .await;
}
