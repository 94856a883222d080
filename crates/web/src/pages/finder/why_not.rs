//! Why the other options are not proposed: what comes nearest to the aim first, and those that one reason rules out together.

use wise_badger_casework::entry::OptionEntry;
use wise_badger_casework::finder::Refused;

/// Options that one reason rules out.
pub(super) struct WhyNot {
    /// What they are, each once.
    pub(super) names: Vec<String>,
    /// The reason.
    pub(super) words: String,
}

/// Options by the reason that rules them out.
pub(super) fn why_not(
    refused: &[Refused],
    name: &dyn Fn(&OptionEntry) -> String,
    words: &dyn Fn(&Refused) -> String,
) -> Vec<WhyNot> {
    let nearness = |refused: &&Refused| refused.misses_the_aim.as_ref().map_or(0.0, |chance| -1.0 - chance.all);
    let mut in_order: Vec<&Refused> = refused.iter().collect();
    in_order.sort_by(|one, other| nearness(one).total_cmp(&nearness(other)));
    let mut reasons: Vec<WhyNot> = Vec::new();
    for refused in in_order {
        let (name, words) = (name(&refused.option), words(refused));
        match reasons.iter_mut().find(|reason| reason.words == words) {
            Some(reason) if reason.names.contains(&name) => {}
            Some(reason) => reason.names.push(name),
            None => reasons.push(WhyNot { names: vec![name], words }),
        }
    }
    reasons
}
