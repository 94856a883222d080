//! What may be done, and which roles may do it. `routes` says of every address what right it takes; the gate before each handler
//! goes by this table and nothing else does.

use wise_badger_store::Role;

/// A right: what an address, or a step within one, takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Right {
    /// Nothing: it is open to whoever comes by.
    Open,
    /// To work in the shop: everybody looks at everything of it.
    Look,
    /// To take in calls, customers and vehicles.
    Receive,
    /// To measure and to look a vehicle over.
    Measure,
    /// To judge: aims, options, packs, what is chosen.
    Judge,
    /// To plan the work, and to have a customer sign for it.
    Plan,
    /// To work by the wrench card.
    Work,
    /// To say yes for the shop on the card: a cut or a drilled hole, work begun while parts are missing.
    Override,
    /// To release a job, and to take it up again.
    Release,
    /// To change the shop's parts.
    Shelf,
    /// To say what the shop charges, when it works, and what counts when options are ranked.
    Terms,
    /// To say who works in the shop and on which tablets.
    People,
}

const EVERYBODY: &[Role] = &[Role::Owner, Role::Lead, Role::Technician, Role::Desk, Role::Apprentice];
const FLOOR: &[Role] = &[Role::Owner, Role::Lead, Role::Technician, Role::Apprentice];
const JUDGES: &[Role] = &[Role::Owner, Role::Lead, Role::Technician];
const COUNTER: &[Role] = &[Role::Owner, Role::Lead, Role::Technician, Role::Desk];
const LEADS: &[Role] = &[Role::Owner, Role::Lead];

/// Every right with the roles that have it, and with what it is for, as in “Only … may …”.
pub(crate) const RIGHTS: [(Right, &[Role], &str); 12] = [
    (Right::Open, EVERYBODY, "come by"),
    (Right::Look, EVERYBODY, "look at the shop's jobs"),
    (Right::Receive, COUNTER, "take in calls and vehicles"),
    (Right::Measure, FLOOR, "put down what is measured"),
    (Right::Judge, JUDGES, "set aims and choose corrections"),
    (Right::Plan, COUNTER, "plan the work and have it signed for"),
    (Right::Work, FLOOR, "tick the wrench card"),
    (Right::Override, LEADS, "say yes to a cut, or to work begun while parts are missing"),
    (Right::Release, JUDGES, "release a job"),
    (Right::Shelf, COUNTER, "change the shelf"),
    (Right::Terms, LEADS, "set what the shop charges and what counts"),
    (Right::People, &[Role::Owner], "say who works in the shop"),
];

impl Right {
    fn row(self) -> (&'static [Role], &'static str) {
        RIGHTS.iter().find(|(right, ..)| *right == self).map_or((&[], ""), |(_, roles, what)| (*roles, *what))
    }

    /// Whether a role has it.
    pub fn is_of(self, role: Role) -> bool {
        self.row().0.contains(&role)
    }

    /// Who has it and what it is, as “Owner or lead may set what the shop charges”.
    pub(crate) fn words(self) -> String {
        let (roles, what) = self.row();
        let names: Vec<&str> = roles.iter().map(|role| role_name(*role)).collect();
        let who = match names.split_last() {
            Some((last, [])) => (*last).to_owned(),
            Some((last, others)) => format!("{} or {last}", others.join(", ")),
            None => "nobody".to_owned(),
        };
        format!("Only an {who} may {what}.")
    }
}

/// What a role is called.
pub(crate) fn role_name(role: Role) -> &'static str {
    match role {
        Role::Owner => "owner",
        Role::Lead => "lead",
        Role::Technician => "technician",
        Role::Desk => "front desk",
        Role::Apprentice => "apprentice",
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_owner_has_every_right_and_everybody_may_look() {
        for (right, roles, _) in RIGHTS {
            assert!(right.is_of(Role::Owner), "{right:?}");
            assert!(!roles.is_empty());
        }
        for (role, _) in Role::WORDS {
            assert!(Right::Look.is_of(role), "{role:?}");
        }
    }

    #[test]
    fn who_learns_neither_judges_nor_releases_and_the_counter_wrenches_nothing() {
        for right in [Right::Judge, Right::Release, Right::Override, Right::Terms, Right::People] {
            assert!(!right.is_of(Role::Apprentice), "{right:?}");
        }
        for right in [Right::Measure, Right::Work, Right::Release, Right::Override] {
            assert!(!right.is_of(Role::Desk), "{right:?}");
        }
        assert!(!Right::Override.is_of(Role::Technician));
    }

    #[test]
    fn a_refusal_says_who_may() {
        assert_eq!(Right::Terms.words(), "Only an owner or lead may set what the shop charges and what counts.");
        assert_eq!(Right::People.words(), "Only an owner may say who works in the shop.");
    }
}
