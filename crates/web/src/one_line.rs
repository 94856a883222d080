//! What went wrong, as one line that a terminal shows whole.

/// Longest line, name and number printed, in characters.
const LONGEST_LINE: usize = 400;
const LONGEST_NAME: usize = 48;
const MOST_DIGITS: usize = 15;

/// A text on one line: names in quotation marks cut where they are long, numbers of more digits than anybody reads as powers of ten,
/// and the whole cut where it is longer than a few lines of a terminal.
pub(crate) fn one_line(text: &str) -> String {
    let plain: Vec<&str> = text.split(|c: char| c.is_whitespace() || c.is_control()).filter(|word| !word.is_empty()).collect();
    cut(&numbers_cut(&names_cut(&plain.join(" "))), LONGEST_LINE)
}

fn cut(text: &str, longest: usize) -> String {
    match text.char_indices().nth(longest) {
        None => text.to_owned(),
        Some(_) => text.chars().take(longest - 1).chain(std::iter::once('…')).collect(),
    }
}

fn names_cut(text: &str) -> String {
    let mut parts = text.split('“');
    let mut said = parts.next().unwrap_or_default().to_owned();
    for part in parts {
        // A name may have quotation marks of its own; what stands after the last is no name any more.
        let (name, rest) = part.split_once('”').unwrap_or((part, ""));
        let closed = part.contains('”');
        said.push('“');
        said.push_str(&cut(name, LONGEST_NAME));
        if closed {
            said.push('”');
        }
        said.push_str(rest);
    }
    said
}

fn numbers_cut(text: &str) -> String {
    let mut said = String::with_capacity(text.len());
    let mut left = text;
    while let Some(start) = left.find(|c: char| c.is_ascii_digit()) {
        let (before, from) = left.split_at(start);
        let end = from.find(|c: char| !(c.is_ascii_digit() || c == '.')).unwrap_or(from.len());
        let (number, after) = from.split_at(end);
        said.push_str(before);
        let digits = number.bytes().filter(u8::is_ascii_digit).count();
        match number.parse::<f64>() {
            Ok(value) if digits > MOST_DIGITS => said.push_str(&format!("{value:.3e}")),
            _ => said.push_str(number),
        }
        left = after;
    }
    said.push_str(left);
    said
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_name_of_many_lines_and_a_number_of_many_digits_are_cut() {
        let long = format!("state “{}\nx”: the load is {:.1}, and must be 0 to 1e7", "n".repeat(300), 1e300_f64);
        let said = one_line(&long);
        assert!(said.starts_with("state “nnn") && said.contains("…”: the load is 1.000e300, and must be 0 to 1e7"), "{said}");
        assert!(said.chars().count() < 140, "{said}");
        assert_eq!(one_line("loads_n[3]: a load on the pack is zero or more"), "loads_n[3]: a load on the pack is zero or more");
        assert_eq!(one_line("0.1234567890123456789 m"), "1.235e-1 m");
    }

    proptest! {
        #[test]
        fn whatever_is_said_is_one_line_that_ends(text in ".*") {
            let said = one_line(&text);
            prop_assert!(said.chars().count() <= LONGEST_LINE && !said.chars().any(|c| c == '\n' || c == '\r'), "{said}");
        }
    }
}
