//! Reading one number as a person writes it: decimals, fractions, and a unit after it.

/// Why a typed quantity could not be understood. The text keeps what was typed.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum TypedError {
    /// Nothing was typed.
    #[error("Nothing is typed here.")]
    Empty,
    /// A fraction stops half-way or divides by nought.
    #[error("“{0}” has a fraction that is not finished; write it like 38 3/4.")]
    Fraction(String),
    /// A fraction that no tape has: a whole or more, or in parts that no tape is divided into.
    #[error("“{0}” has a fraction that no tape has; write less than one, in halves to 64ths, like 38 3/4.")]
    NotOnATape(String),
    /// The text is not a number with a unit.
    #[error("“{text}” is not a {what}; write it like {example}.")]
    NotUnderstood {
        /// What was typed.
        text: String,
        /// The kind of quantity asked for.
        what: &'static str,
        /// Ways to write one.
        example: &'static str,
    },
    /// The number is understood but no real vehicle has it.
    #[error("“{text}” is {size} for a {what} on a vehicle; check the number and the unit.")]
    OutOfRange {
        /// What was typed.
        text: String,
        /// The kind of quantity asked for.
        what: &'static str,
        /// "too large" or "too small".
        size: &'static str,
    },
    /// A quantity that cannot be negative is.
    #[error("“{0}” is below zero; a {1} is counted upward from zero.")]
    Negative(String, &'static str),
}

/// A number read from the front of a text, and the rest of the text.
pub(super) struct Number<'a> {
    pub(super) value: f64,
    pub(super) rest: &'a str,
}

/// Reads `38`, `38.75`, `3/4`, `38 3/4` or `38-3/4` from the front of `text` (already trimmed).
///
/// Returns `None` when the text does not start with a digit or a decimal point.
/// Exponents are not read: nobody writes a height as `9e2`, and a slip of the finger could.
pub(super) fn leading_number<'a>(text: &'a str, whole: &str) -> Result<Option<Number<'a>>, TypedError> {
    let Some((first, rest)) = leading_decimal(text) else {
        return Ok(None);
    };
    if let Some(after_slash) = strip_spaced(rest, '/') {
        let (value, rest) = finish_fraction(first, after_slash, whole)?;
        return Ok(Some(Number { value, rest }));
    }
    // A whole number may be followed by a fraction: `38 3/4` or `38-3/4`.
    let joined = rest.strip_prefix('-').unwrap_or(rest).trim_start();
    if let Some((numerator, after)) = leading_decimal(joined)
        && let Some(after_slash) = strip_spaced(after, '/')
    {
        if first.fract().abs() > 0.0 {
            return Err(TypedError::Fraction(whole.to_owned()));
        }
        let (fraction, rest) = finish_fraction(numerator, after_slash, whole)?;
        return Ok(Some(Number { value: first + fraction, rest }));
    }
    Ok(Some(Number { value: first, rest }))
}

/// Into how many parts an inch, or whatever is halved, is divided at the least and at the most.
const DENOMINATORS: std::ops::RangeInclusive<f64> = 2.0..=64.0;

fn strip_spaced(text: &str, mark: char) -> Option<&str> {
    text.trim_start().strip_prefix(mark).map(str::trim_start)
}

fn finish_fraction<'a>(numerator: f64, after_slash: &'a str, whole: &str) -> Result<(f64, &'a str), TypedError> {
    match leading_decimal(after_slash) {
        Some((denominator, rest)) if denominator > 0.0 => {
            let parts = numerator.fract().abs() + denominator.fract().abs() <= 0.0 && DENOMINATORS.contains(&denominator);
            let proper = numerator < denominator;
            (parts && proper).then(|| (numerator / denominator, rest)).ok_or_else(|| TypedError::NotOnATape(whole.to_owned()))
        }
        _ => Err(TypedError::Fraction(whole.to_owned())),
    }
}

/// Reads digits with at most one decimal mark; a comma between digits is read as a decimal point
/// unless it groups thousands (`3,800`).
fn leading_decimal(text: &str) -> Option<(f64, &str)> {
    let end = text.find(|c: char| !(c.is_ascii_digit() || c == '.' || c == ',')).unwrap_or(text.len());
    let (digits, rest) = text.split_at_checked(end)?;
    if !digits.contains(|c: char| c.is_ascii_digit()) {
        return None;
    }
    if let Some((whole, rest)) = grouped_by_spaces(digits, rest) {
        return Some((whole.parse().ok()?, rest));
    }
    let value = without_grouping(digits)?.parse().ok()?;
    Some((value, rest))
}

/// Thousands set apart by spaces (`2 670`), as is usual where lengths are metric; no fraction has a numerator of three digits.
fn grouped_by_spaces<'a>(digits: &str, rest: &'a str) -> Option<(String, &'a str)> {
    const SPACES: [char; 3] = [' ', '\u{a0}', '\u{202f}'];
    let is_first =
        (1..=3).contains(&digits.len()) && digits.bytes().all(|byte| byte.is_ascii_digit()) && !digits.starts_with('0');
    let (mut whole, mut left) = (digits.to_owned(), rest);
    while is_first
        && let Some((group, after)) = left.strip_prefix(SPACES).and_then(|tail| tail.split_at_checked(3))
        && group.bytes().all(|byte| byte.is_ascii_digit())
        && !after.starts_with(|next: char| next.is_ascii_digit() || next == '/')
    {
        whole.push_str(group);
        left = after;
    }
    if let Some((tenths, after)) = left.strip_prefix('.').filter(|_| whole != digits).and_then(leading_digits) {
        whole = format!("{whole}.{tenths}");
        left = after;
    }
    (whole != digits).then_some((whole, left))
}

fn leading_digits(text: &str) -> Option<(&str, &str)> {
    let end = text.find(|c: char| !c.is_ascii_digit()).unwrap_or(text.len());
    text.split_at_checked(end).filter(|(digits, _)| !digits.is_empty())
}

fn without_grouping(digits: &str) -> Option<String> {
    if !digits.contains(',') {
        return Some(digits.to_owned());
    }
    let whole = digits.split('.').next().unwrap_or_default();
    let mut groups = whole.split(',');
    let first_ok = groups.next().is_some_and(|group| (1..=3).contains(&group.len()));
    if first_ok && groups.all(|group| group.len() == 3) && !whole.starts_with('0') {
        return Some(digits.replace(',', ""));
    }
    (digits.matches(',').count() == 1 && !digits.contains('.')).then(|| digits.replace(',', "."))
}

/// Takes a leading minus (typed as `-` or as the true minus sign) off a text.
pub(super) fn split_sign(text: &str) -> (bool, &str) {
    match text.strip_prefix(['-', '−']) {
        Some(rest) => (true, rest.trim_start()),
        None => (false, text.strip_prefix('+').map_or(text, str::trim_start)),
    }
}
