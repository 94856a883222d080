//! The template as one drawing, a millimetre a unit.

use std::fmt::Write as _;

use super::Template;

const MARGIN_MM: f64 = 15.0;
const FOOT_MM: f64 = 40.0;

/// The file.
pub(crate) fn svg(template: &Template) -> String {
    let [low, high] = template.bounds();
    let (width, height) = (high.0 - low.0 + 2.0 * MARGIN_MM, high.1 - low.1 + 2.0 * MARGIN_MM + FOOT_MM);
    let place = |(x, y): (f64, f64)| (x - low.0 + MARGIN_MM, high.1 - y + MARGIN_MM);
    let points = |points: &[(f64, f64)]| {
        let place = points.iter().map(|point| place(*point)).map(|(x, y)| format!("{x:.3},{y:.3}"));
        place.collect::<Vec<_>>().join(" ")
    };
    let mut text = format!(
        r#"<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3}mm" height="{height:.3}mm" viewBox="0 0 {width:.3} {height:.3}"><g fill="none" stroke="black" stroke-width="0.3">"#
    );
    let line = |text: &mut String, from: (f64, f64), to: (f64, f64), more: &str| {
        let ((x1, y1), (x2, y2)) = (place(from), place(to));
        // Writing to a string cannot fail.
        let _ = write!(text, r#"<line x1="{x1:.3}" y1="{y1:.3}" x2="{x2:.3}" y2="{y2:.3}"{more}/>"#);
    };
    let _ = write!(text, r#"<polygon points="{}"/>"#, points(&template.outline()));
    line(&mut text, template.chord[0], template.chord[1], r#" stroke-dasharray="4 2""#);
    for [from, to] in &template.steps {
        line(&mut text, *from, *to, "");
    }
    line(&mut text, template.bolt[0], template.bolt[1], r#" stroke-width="1""#);
    let (bar, name) = template.check_bar();
    let foot = height - 8.0;
    let _ = write!(text, r#"<path d="M{MARGIN_MM} {foot}h{bar}m0 -3v6m-{bar} 0v-6" stroke-width="0.5"/></g>"#);
    let _ = write!(text, r#"<g font-family="sans-serif" font-size="5" fill="black">"#);
    let _ = write!(text, r#"<text x="{:.3}" y="{:.3}">{name}: check with a rule</text>"#, MARGIN_MM + bar + 4.0, foot + 2.0);
    for (row, words) in (0_u32..).zip(&template.words) {
        let words = words.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;");
        let y = height - FOOT_MM + 4.0 + 7.0 * f64::from(row);
        let _ = write!(text, r#"<text x="{MARGIN_MM}" y="{y:.3}">{words}</text>"#);
    }
    for (end, word) in [(template.chord[0], "F"), (template.chord[1], "R")] {
        let (x, y) = place(end);
        let _ = write!(text, r#"<text x="{x:.3}" y="{:.3}" text-anchor="middle">{word}</text>"#, y + 9.0);
    }
    text.push_str("</g></svg>");
    text
}
