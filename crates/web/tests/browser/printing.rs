//! A job prints on one page.

use std::io::Write;
use std::process::{Command, Stdio};

use thirtyfour::common::print::{PrintPage, PrintParameters};

use crate::site::Site;
use crate::workbench::at;

#[tokio::test]
async fn a_finished_job_prints_on_one_page_of_either_size() {
    at(Site::demo(), "print", async |bench| {
        bench.sign_on("Odalys").await?;
        // Centimetres, as the driver wants them: A4 and Letter.
        for (width, height) in [(21.0, 29.7), (21.59, 27.94)] {
            for job in [1, 2, 4] {
                bench.goto(&format!("/jobs/{job}")).await?;
                bench.find(".stands").await?;
                let page = PrintPage { width, height };
                let sheet = bench.page.print_page(PrintParameters { page, ..PrintParameters::default() }).await?;
                assert_eq!(pages(&sheet), "1", "job {job} on {width} by {height} cm");
            }
        }
        Ok(())
    })
    .await;
}

#[tokio::test]
async fn an_arching_sheet_prints_with_no_column_lost() {
    at(Site::demo(), "print_sheet", async |bench| {
        bench.sign_on("Odalys").await?;
        for (width, height) in [(21.0, 29.7), (21.59, 27.94)] {
            bench.goto("/jobs/7/bench/sheet?tube=3.5&plate=1/2&block=&u_bolt=9/16").await?;
            bench.find(".bits").await?;
            let page = PrintPage { width, height };
            let sheet = bench.page.print_page(PrintParameters { page, ..PrintParameters::default() }).await?;
            let words = words(&sheet);
            for part in ["F 26", "R 28", "press to", "U-bolt leg", "Overload leaf"] {
                assert!(words.contains(part), "{part} on {width} by {height} cm: {words}");
            }
            assert!(pages(&sheet).parse::<u32>().is_ok_and(|pages| pages <= 3), "{} pages", pages(&sheet));
        }
        Ok(())
    })
    .await;
}

/// The sheet that goes with the vehicle: what it must say stands on it on either paper, and it is no book.
#[tokio::test]
async fn a_handover_sheet_prints_with_all_that_the_customer_is_told() {
    at(Site::demo(), "print_handover", async |bench| {
        bench.sign_on("Odalys").await?;
        for (width, height) in [(21.0, 29.7), (21.59, 27.94)] {
            bench.goto("/jobs/1/handover").await?;
            bench.find(".handover-head").await?;
            let page = PrintPage { width, height };
            let sheet = bench.page.print_page(PrintParameters { page, ..PrintParameters::default() }).await?;
            let words = words(&sheet);
            for part in ["Fitted", "Before", "After", "No rating is raised", "Rear, loaded", "Received"] {
                assert!(words.contains(part), "{part} on {width} by {height} cm: {words}");
            }
            assert!(pages(&sheet).parse::<u32>().is_ok_and(|pages| pages <= 2), "{} pages", pages(&sheet));
        }
        Ok(())
    })
    .await;
}

fn words(pdf: &[u8]) -> String {
    let mut reader =
        Command::new("pdftotext").args(["-layout", "-", "-"]).stdin(Stdio::piped()).stdout(Stdio::piped()).spawn().unwrap();
    reader.stdin.take().unwrap().write_all(pdf).unwrap();
    String::from_utf8_lossy(&reader.wait_with_output().unwrap().stdout).into_owned()
}

fn pages(pdf: &[u8]) -> String {
    let mut reader = Command::new("pdfinfo").arg("-").stdin(Stdio::piped()).stdout(Stdio::piped()).spawn().unwrap();
    reader.stdin.take().unwrap().write_all(pdf).unwrap();
    let said = String::from_utf8(reader.wait_with_output().unwrap().stdout).unwrap();
    said.lines().find_map(|line| line.strip_prefix("Pages:")).unwrap_or_default().trim().to_owned()
}
