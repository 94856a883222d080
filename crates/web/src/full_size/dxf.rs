//! The template as a DXF of release 12, in millimetres: what any cutting table reads.

use std::fmt::Write as _;

use super::Template;

/// The file. Layers: LEAF the outline to cut, MARK the centre hole and the steps, CHORD the line from end to end, TEXT the words and the
/// check bar.
pub(crate) fn dxf(template: &Template) -> String {
    let mut file = Writer::default();
    let [low, high] = template.bounds();
    file.pairs(&[(0, "SECTION"), (2, "HEADER"), (9, "$ACADVER"), (1, "AC1009"), (9, "$EXTMIN")]);
    file.point(10, (low.0, low.1));
    file.pairs(&[(9, "$EXTMAX")]);
    file.point(10, (high.0, high.1));
    file.pairs(&[(0, "ENDSEC"), (0, "SECTION"), (2, "TABLES"), (0, "TABLE"), (2, "LTYPE"), (70, "1"), (0, "LTYPE")]);
    file.pairs(&[(2, "CONTINUOUS"), (70, "0"), (3, "Solid line"), (72, "65"), (73, "0"), (40, "0.0"), (0, "ENDTAB")]);
    file.pairs(&[(0, "TABLE"), (2, "LAYER"), (70, "4")]);
    for (layer, colour) in [("LEAF", "7"), ("MARK", "1"), ("CHORD", "3"), ("TEXT", "5")] {
        file.pairs(&[(0, "LAYER"), (2, layer), (70, "0"), (62, colour), (6, "CONTINUOUS")]);
    }
    file.pairs(&[(0, "ENDTAB"), (0, "TABLE"), (2, "STYLE"), (70, "1"), (0, "STYLE"), (2, "STANDARD"), (70, "0"), (40, "0.0")]);
    file.pairs(&[(41, "1.0"), (50, "0.0"), (71, "0"), (42, "5.0"), (3, "txt"), (4, ""), (0, "ENDTAB"), (0, "ENDSEC")]);
    file.pairs(&[(0, "SECTION"), (2, "ENTITIES")]);
    file.polyline("LEAF", &template.outline());
    file.line("CHORD", template.chord);
    for step in &template.steps {
        file.line("MARK", *step);
    }
    file.line("MARK", template.bolt);
    let foot = low.1 - 20.0;
    let (bar, name) = template.check_bar();
    file.line("TEXT", [(low.0, foot), (low.0 + bar, foot)]);
    for x in [low.0, low.0 + bar] {
        file.line("TEXT", [(x, foot - 3.0), (x, foot + 3.0)]);
    }
    file.text((low.0 + bar + 5.0, foot - 2.0), &format!("{name}: check with a rule"));
    for (row, words) in (1_u32..).zip(&template.words) {
        file.text((low.0, foot - 4.0 - 8.0 * f64::from(row)), words);
    }
    for (end, word) in [(template.chord[0], "F"), (template.chord[1], "R")] {
        file.text((end.0, end.1 - 9.0), word);
    }
    file.pairs(&[(0, "ENDSEC"), (0, "EOF")]);
    file.body
}

#[cfg(test)]
mod tests {
    use wise_badger_mechanics::pack::ArchSheet;
    use wise_badger_mechanics::units::{inches, per_metre};

    use super::super::Template;

    /// The fixture was read back by ezdxf without a fault: see `scripts/templates/read_back.py`, which also holds its arc against the circle.
    #[test]
    fn a_template_is_the_file_that_was_read_back_elsewhere() {
        let sheet = ArchSheet { front: inches(24.0), rear: inches(30.0), curvature: per_metre(1.0 / 1.524) };
        let words = vec!["Main leaf".to_owned(), "radius 60 in".to_owned()];
        let written = super::dxf(&Template::new(&sheet, inches(0.31), inches(2.0), true, words));
        let fixture = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/fixtures/leaf.dxf");
        if std::env::var_os("WRITE_FIXTURES").is_some() {
            std::fs::write(&fixture, &written).expect("the folder is there");
        }
        assert!(
            std::fs::read_to_string(fixture).expect("the fixture is there") == written,
            "the file is no longer the one read back"
        );
    }
}

#[derive(Default)]
struct Writer {
    body: String,
}

impl Writer {
    fn pairs(&mut self, pairs: &[(u16, &str)]) {
        for (code, value) in pairs {
            // Writing to a string cannot fail. Lines end as this format's readers have always had them.
            let _ = write!(self.body, "{code:>3}\r\n{value}\r\n");
        }
    }

    fn number(&mut self, code: u16, value: f64) {
        self.pairs(&[(code, &format!("{value:.4}"))]);
    }

    fn point(&mut self, code: u16, (x, y): (f64, f64)) {
        self.number(code, x);
        self.number(code + 10, y);
        self.number(code + 20, 0.0);
    }

    fn line(&mut self, layer: &str, [from, to]: [(f64, f64); 2]) {
        self.pairs(&[(0, "LINE"), (8, layer)]);
        self.point(10, from);
        self.point(11, to);
    }

    fn polyline(&mut self, layer: &str, points: &[(f64, f64)]) {
        self.pairs(&[(0, "POLYLINE"), (8, layer), (66, "1")]);
        self.point(10, (0.0, 0.0));
        // 1: it closes.
        self.pairs(&[(70, "1")]);
        for point in points {
            self.pairs(&[(0, "VERTEX"), (8, layer)]);
            self.point(10, *point);
        }
        self.pairs(&[(0, "SEQEND"), (8, layer)]);
    }

    fn text(&mut self, at: (f64, f64), words: &str) {
        // Release 12 knows plain letters only.
        let plain: String =
            words.replace('−', "-").chars().map(|sign| if sign.is_ascii() && !sign.is_control() { sign } else { ' ' }).collect();
        self.pairs(&[(0, "TEXT"), (8, "TEXT")]);
        self.point(10, at);
        self.number(40, 5.0);
        self.pairs(&[(1, &plain)]);
    }
}
