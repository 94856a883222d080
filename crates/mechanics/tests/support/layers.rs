//! Reads which modules of a crate use which, from its sources: `use` lines, paths in the middle of code, `super::` and groups in
//! braces. Comments and texts do not count.

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

/// Asserts that no module of a crate uses one above it.
#[allow(dead_code, reason = "not every test that shares this holds a crate")]
pub(crate) fn hold(crate_folder: &str, layers: &[&str]) {
    let source = Path::new(crate_folder).join("src");
    let mut files = Vec::new();
    gather(&source, &source, &mut files);
    assert!(files.len() > layers.len(), "the sources are found");
    let files: Vec<(&str, &str)> = files.iter().map(|(name, text)| (name.as_str(), text.as_str())).collect();
    let upward = upward(layers, &files);
    assert!(upward.is_empty(), "{upward:#?}");
    let rings = rings(&files);
    assert!(rings.is_empty(), "{rings:#?}");
    for layer in layers {
        let there = files.iter().any(|(name, _)| module_of(name).first() == Some(layer));
        assert!(there, "{layer} is a layer without a module");
    }
}

fn gather(root: &Path, folder: &Path, files: &mut Vec<(String, String)>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            gather(root, &path, files);
        } else if path.extension().is_some_and(|ending| ending == "rs") && path.file_name().is_some_and(|name| name != "lib.rs") {
            let name = path.strip_prefix(root).unwrap().to_string_lossy().into_owned();
            files.push((name, std::fs::read_to_string(&path).unwrap()));
        }
    }
}

/// The module that a file is, from the root of its crate.
fn module_of(file: &str) -> Vec<&str> {
    let plain = file.trim_end_matches(".rs").trim_end_matches("/mod");
    plain.split('/').collect()
}

/// Every use of a module above the one that uses it, each told once.
pub(crate) fn upward(layers: &[&str], files: &[(&str, &str)]) -> Vec<String> {
    let place = |module: &str| layers.iter().position(|layer| *layer == module);
    let mut told = Vec::new();
    for (file, text) in files {
        let module = module_of(file);
        let Some(own) = place(module[0]) else {
            told.push(format!("{file} is in no layer"));
            continue;
        };
        let named = paths(&module, &code_of(text));
        for used in named.into_iter().filter_map(|path| path.into_iter().next()) {
            if place(&used).is_some_and(|used| used > own) {
                let line = format!("{file} uses {used}, which is above {}", module[0]);
                if !told.contains(&line) {
                    told.push(line);
                }
            }
        }
    }
    told
}

/// Every ring of files that use each other, each told by its files in order. A name that a folder's own file hands on from another
/// file counts as a use of that other file; what a folder's own file hands on is no use of its own.
pub(crate) fn rings(files: &[(&str, &str)]) -> Vec<Vec<String>> {
    let sources: BTreeMap<Vec<&str>, String> = files.iter().map(|(file, text)| (module_of(file), code_of(text))).collect();
    let mut edges: BTreeMap<Vec<&str>, BTreeSet<Vec<&str>>> = BTreeMap::new();
    for (module, code) in &sources {
        // What tests alone use is no part of the house.
        let code = code.split("#[cfg(test)]").next().unwrap_or_default();
        let used = paths(module, code).into_iter().filter_map(|path| file_of(&sources, &path));
        let within = sources.keys().filter(|child| child.len() == module.len() + 1 && child.starts_with(module));
        let within = within.filter(|child| uses_child(code, child[module.len()])).cloned();
        edges.insert(module.clone(), used.filter(|used| used != module).chain(within).collect());
    }
    let reaches = |from: &Vec<&str>| -> BTreeSet<Vec<&str>> {
        let (mut seen, mut open) = (BTreeSet::new(), vec![from]);
        while let Some(next) = open.pop() {
            for used in edges.get(next).into_iter().flatten() {
                if seen.insert(used.clone()) {
                    open.push(used);
                }
            }
        }
        seen
    };
    let reached: BTreeMap<&Vec<&str>, BTreeSet<Vec<&str>>> = edges.keys().map(|module| (module, reaches(module))).collect();
    let mut told: BTreeSet<Vec<String>> = BTreeSet::new();
    for (module, there) in &reached {
        if there.contains(*module) {
            let back = |other: &&Vec<&str>| reached.get(*other).is_some_and(|from| from.contains(*module));
            let ring = there.iter().filter(back).map(|module| module.join("/"));
            told.insert(ring.collect());
        }
    }
    told.into_iter().collect()
}

/// Whether a folder's own file uses one of its files, beside handing on what that has.
fn uses_child(code: &str, child: &str) -> bool {
    let statements = code.split_inclusive([';', '{', '}']).filter(|statement| !statement.trim_start().starts_with("pub use"));
    let path = format!("{child}::");
    let own = |(at, _): (usize, &str), statement: &str| {
        !statement[..at].ends_with(|before: char| before.is_alphanumeric() || before == '_' || before == ':')
    };
    statements.into_iter().any(|statement| statement.match_indices(&path).any(|found| own(found, statement)))
}

/// The file that a path from the root of the crate leads to: the longest part of it that is one, or the one that hands its next
/// name on.
fn file_of<'a>(sources: &BTreeMap<Vec<&'a str>, String>, path: &[String]) -> Option<Vec<&'a str>> {
    let file = |length: usize| sources.keys().find(|module| module.len() == length && module.iter().eq(&path[..length]));
    let module = (1..=path.len()).rev().find_map(file)?;
    let handed_on = path.get(module.len()).and_then(|name| {
        let code = &sources[module];
        let children = sources.keys().filter(|child| child.len() == module.len() + 1 && child.starts_with(module));
        children.into_iter().find(|child| {
            let from = format!("pub use {}::", child[module.len()]);
            let mut each = code.match_indices(&from).map(|(start, _)| &code[start + from.len()..]);
            each.any(|rest| {
                branches(rest.split(';').next().unwrap_or_default()).iter().any(|branch| branch.first() == Some(name))
            })
        })
    });
    Some(handed_on.unwrap_or(module).clone())
}

/// Every path that code in a module names, from the root of the crate.
fn paths(module: &[&str], code: &str) -> Vec<Vec<String>> {
    let mut paths = Vec::new();
    let bytes = code.as_bytes();
    for (start, _) in code.match_indices("crate::").chain(code.match_indices("super::")) {
        let before = start.checked_sub(1).map(|at| bytes[at] as char);
        if before.is_some_and(|sign| sign.is_alphanumeric() || sign == '_') || code[..start].ends_with("super::") {
            continue;
        }
        let mut rest = &code[start..];
        let mut up = 0;
        while let Some(further) = rest.strip_prefix("super::") {
            (rest, up) = (further, up + 1);
        }
        let base = match rest.strip_prefix("crate::") {
            Some(further) => {
                rest = further;
                &[][..]
            }
            None => &module[..module.len().saturating_sub(up)],
        };
        let base: Vec<String> = base.iter().map(|part| (*part).to_owned()).collect();
        paths.extend(branches(rest).into_iter().map(|branch| [base.clone(), branch].concat()));
    }
    paths
}

/// The ways that a path goes on: one, or each of a group in braces.
fn branches(path: &str) -> Vec<Vec<String>> {
    let word: String = path.chars().take_while(|sign| sign.is_alphanumeric() || *sign == '_').collect();
    if word.is_empty() {
        let Some(group) = path.strip_prefix('{') else { return vec![Vec::new()] };
        let (mut each, mut depth, mut from) = (Vec::new(), 0, 0);
        for (at, sign) in group.char_indices() {
            match sign {
                '{' => depth += 1,
                '}' if depth == 0 => {
                    // Nothing stands after a last comma.
                    let last = group[from..at].trim();
                    each.extend(if last.is_empty() { Vec::new() } else { branches(last) });
                    break;
                }
                '}' => depth -= 1,
                ',' if depth == 0 => {
                    each.extend(branches(group[from..at].trim()));
                    from = at + 1;
                }
                _ => {}
            }
        }
        return each;
    }
    match path[word.len()..].strip_prefix("::") {
        Some(rest) => branches(rest).into_iter().map(|branch| [vec![word.clone()], branch].concat()).collect(),
        None => vec![vec![word]],
    }
}

/// The text without comments and string literals.
fn code_of(text: &str) -> String {
    let (mut code, mut rest) = (String::new(), text);
    while let Some(sign) = rest.chars().next() {
        let skipped = if rest.starts_with("//") {
            rest.find('\n').unwrap_or(rest.len())
        } else if rest.starts_with("/*") {
            rest.find("*/").map_or(rest.len(), |end| end + 2)
        } else if sign == '"' {
            let mut escaped = false;
            let end = rest.char_indices().skip(1).find(|(_, sign)| {
                let ends = *sign == '"' && !escaped;
                escaped = *sign == '\\' && !escaped;
                ends
            });
            end.map_or(rest.len(), |(end, _)| end + 1)
        } else {
            code.push(sign);
            sign.len_utf8()
        };
        rest = &rest[skipped..];
    }
    code
}
