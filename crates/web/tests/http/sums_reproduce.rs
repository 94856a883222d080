//! Every opened sum of every demo job, worked out again from what it prints: the printed numbers make the printed result, and the
//! figure above it.

use crate::units::switch;
use crate::{Page, Site, Visitor};

/// A number as it was printed: anything from `least` to `most` reads like it.
#[derive(Debug, Clone, Copy)]
struct Printed {
    least: f64,
    most: f64,
}

impl Printed {
    fn of(value: f64, half_a_step: f64) -> Self {
        Printed { least: value - half_a_step, most: value + half_a_step }
    }

    fn meets(self, other: Printed) -> bool {
        self.least <= other.most && other.least <= self.most
    }

    fn over_all(self, other: Printed, of: impl Fn(f64, f64) -> f64) -> Printed {
        let ends = [(self.least, other.least), (self.least, other.most), (self.most, other.least), (self.most, other.most)];
        let values = ends.map(|(one, other)| of(one, other));
        Printed {
            least: values.iter().copied().fold(f64::INFINITY, f64::min),
            most: values.iter().copied().fold(f64::NEG_INFINITY, f64::max),
        }
    }
}

#[derive(Debug, Clone, Copy)]
enum Token {
    Number(Printed),
    Sign(char),
}

/// Numbers and signs of a text; units and words are left out, and so is what stands in brackets behind a number.
fn tokens(text: &str) -> Vec<Token> {
    let mut text = text.replace(['\u{a0}', '\u{202f}'], " ");
    for unit in ["lb/in", "N/mm", "in/s²", "ft·lb/°", "ft·lb", "lb·ft", "N·m"] {
        text = text.replace(unit, " ");
    }
    let signs: Vec<char> = text.chars().collect();
    let mut found: Vec<Token> = Vec::new();
    let mut at = 0;
    while at < signs.len() {
        let sign = signs[at];
        if sign.is_ascii_digit() {
            let from = at;
            while at < signs.len()
                && (signs[at].is_ascii_digit()
                    || (matches!(signs[at], '.' | ',') && signs.get(at + 1).is_some_and(char::is_ascii_digit)))
            {
                at += 1;
            }
            let number: String = signs[from..at].iter().filter(|sign| **sign != ',').collect();
            let decimals = number.split('.').nth(1).map_or(0, str::len);
            let half = 0.5 * 10_f64.powi(-i32::try_from(decimals).unwrap());
            found.push(Token::Number(Printed::of(number.parse().unwrap(), half * 1.01)));
            continue;
        }
        match sign {
            '(' if matches!(found.last(), Some(Token::Number(_) | Token::Sign(')'))) => {
                while at < signs.len() && signs[at] != ')' {
                    at += 1;
                }
            }
            '+' | '−' | '×' | '/' | '(' | ')' | '√' => found.push(Token::Sign(sign)),
            _ => {}
        }
        at += 1;
    }
    found
}

/// `None` where it is no sum.
fn worked_out(tokens: &[Token]) -> Option<Printed> {
    let mut rest = tokens;
    let value = sum(&mut rest)?;
    rest.is_empty().then_some(value)
}

fn next_is(rest: &[Token], signs: &[char]) -> Option<char> {
    match rest.first() {
        Some(Token::Sign(sign)) if signs.contains(sign) => Some(*sign),
        _ => None,
    }
}

fn sum(rest: &mut &[Token]) -> Option<Printed> {
    let mut value = product(rest)?;
    while let Some(sign) = next_is(rest, &['+', '−']) {
        *rest = &rest[1..];
        let other = product(rest)?;
        value = value.over_all(other, |one, other| if sign == '+' { one + other } else { one - other });
    }
    Some(value)
}

fn product(rest: &mut &[Token]) -> Option<Printed> {
    let mut value = one(rest)?;
    while let Some(sign) = next_is(rest, &['×', '/']) {
        *rest = &rest[1..];
        let other = one(rest)?;
        value = value.over_all(other, |one, other| if sign == '×' { one * other } else { one / other });
    }
    Some(value)
}

fn one(rest: &mut &[Token]) -> Option<Printed> {
    let (first, after) = rest.split_first()?;
    *rest = after;
    match first {
        Token::Number(number) => Some(*number),
        Token::Sign('−') => one(rest).map(|value| Printed { least: -value.most, most: -value.least }),
        Token::Sign('+') => one(rest),
        Token::Sign('(') => {
            let value = sum(rest)?;
            next_is(rest, &[')'])?;
            *rest = &rest[1..];
            Some(value)
        }
        Token::Sign('√') => one(rest).map(|value| Printed { least: value.least.max(0.0).sqrt(), most: value.most.sqrt() }),
        Token::Sign(_) => None,
    }
}

/// The figure itself: inches are printed in sixteenths, or in eighths where their band is wide; everything else to its last digit.
fn figure_value(text: &str) -> Option<Printed> {
    let text = text.split('±').next()?.replace(['\u{a0}', '\u{202f}', '+'], " ").replace(',', "");
    let mut words = text.split_whitespace().map(|word| word.trim_start_matches('−'));
    let first = words.next()?;
    let fraction = |word: &str| {
        let (over, under) = word.split_once('/')?;
        let under: f64 = under.parse().ok()?;
        let half_a_step = if under > 8.0 { 1.0 / 30.0 } else { EIGHTH };
        Some((over.parse::<f64>().ok()? / under, half_a_step))
    };
    if let Some((value, half_a_step)) = fraction(first) {
        return Some(Printed::of(value, half_a_step));
    }
    let whole: f64 = first.trim_end_matches(['%', '°']).parse().ok()?;
    let second = words.next().unwrap_or_default();
    if let Some((more, half_a_step)) = fraction(second) {
        return Some(Printed::of(whole + more, half_a_step));
    }
    let decimals = first.split('.').nth(1).map_or(0, |part| part.trim_end_matches(['%', '°']).len());
    let half = 0.5 * 10_f64.powi(-i32::try_from(decimals).unwrap());
    Some(Printed::of(whole, if second == "in" && decimals == 0 { EIGHTH } else { half * 1.01 }))
}

/// Half an eighth, with what the sum's own rounding adds.
const EIGHTH: f64 = 1.0 / 15.5;

fn positive(value: Printed) -> Printed {
    if value.most <= 0.0 { Printed { least: -value.most, most: -value.least } } else { value }
}

/// What is wrong on a page, and how many sums were worked out.
fn check(page: &Page, wrong: &mut Vec<String>) -> usize {
    let mut worked = 0;
    for (label, value, formula, lines) in page.sums() {
        // What was read or stated is no sum, and stands there as it is.
        let stated = lines.iter().filter(|line| !line.contains('=')).flat_map(|line| tokens(line));
        let mut results: Vec<Printed> =
            stated.filter_map(|token| if let Token::Number(number) = token { Some(number) } else { None }).collect();
        for line in lines.iter().filter(|line| line.contains('=')) {
            let sides: Vec<Option<Printed>> =
                line.split('=').map(|side| worked_out(&tokens(side.rsplit(": ").next().unwrap_or(side)))).collect();
            if line.trim_start().starts_with('=') {
                results.extend(sides.last().copied().flatten());
                continue;
            }
            for (one, other) in sides.iter().zip(sides.iter().skip(1)) {
                match (one, other) {
                    (Some(one), Some(other)) if one.meets(*other) => worked += 1,
                    (Some(_), Some(_)) => wrong.push(format!("{}: {label}: “{line}” does not come out", page.path)),
                    _ => wrong.push(format!("{}: {label}: “{line}” is no sum that could be worked out", page.path)),
                }
            }
            results.extend(sides.last().copied().flatten());
        }
        let needs_one = formula.contains('=') && formula.contains(['×', '/', '+', '−', '√']);
        if needs_one && !lines.is_empty() && lines.iter().all(|line| !line.contains('=')) {
            wrong.push(format!("{}: {label}: its formula “{formula}” is not worked out: {lines:?}", page.path));
        }
        let figure = figure_value(&value).filter(|_| !results.is_empty());
        if figure.is_some_and(|figure| !results.iter().any(|result| positive(*result).meets(positive(figure)))) {
            wrong.push(format!("{}: {label}: none of its sums comes to {value}: {lines:?}", page.path));
        }
    }
    worked
}

#[tokio::test]
async fn what_a_sum_prints_makes_the_figure_above_it() {
    let site = Site::demo();
    let bram = Visitor::working(&site.address, "Bram").await;
    let (mut wrong, mut worked) = (Vec::new(), 0);
    for [length, weight] in [["in", "lb"], ["mm", "kg"], ["mm", "lb"], ["in", "kg"]] {
        switch(&bram, "length", length).await;
        switch(&bram, "weight", weight).await;
        for job in 1..=7 {
            for page in ["", "/verdict", "/load", "/options", "/bench", "/proof", "/aim"] {
                worked += check(&bram.get(&format!("/jobs/{job}{page}")).await, &mut wrong);
            }
        }
    }
    assert!(worked > 1_000, "{worked} sums");
    assert!(wrong.is_empty(), "{} of {worked}:\n{}", wrong.len(), wrong.join("\n"));
}

#[test]
fn the_reader_of_sums_sees_what_is_wrong() {
    let value = |text: &str| worked_out(&tokens(text)).unwrap();
    assert!(value("1,000 lb / 2.66 in").meets(value("376 lb/in")));
    assert!(!value("1,000 lb / 2.66 in").meets(value("370 lb/in")));
    assert!(value("21.50 in + rise of 2.00 in").meets(value("23.50 in (23 1/2 in)")));
    assert!(!value("21.50 in − −2.00 in").meets(value("19.50 in")));
    assert!(value("5,250 lb × (162.00 in + 18.00 in) / 162.00 in").meets(value("5,833 lb")));
    assert!(worked_out(&tokens("12 34")).is_none());
    assert!(figure_value("23 1/2 in ± 5/16 in").unwrap().meets(Printed::of(23.47, 0.0)));
    assert!(!figure_value("23 1/2 in").unwrap().meets(Printed::of(23.4, 0.0)));
    assert!(!figure_value("23 7/16 in").unwrap().meets(Printed::of(23.5, 0.0)));
    assert!(figure_value("1,863 lb/in").unwrap().meets(Printed::of(1863.0, 0.0)));
}
