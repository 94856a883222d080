//! The complementarity problem of leaves that press and never pull. Raw SI `f64` inside.

use crate::cholesky::{factorise, solve_factorised};

/// `w = q + rP + Aλ ≥ 0`, `λ ≥ 0`, `w·λ = 0`, with `A` symmetric and positive definite.
pub(super) struct Contacts {
    /// How many there are.
    pub(super) count: usize,
    /// Row by row, whole.
    pub(super) compliance: Vec<f64>,
    /// Gaps with no load and no contact, m.
    pub(super) gap: Vec<f64>,
    /// What a load adds to them, m/N.
    pub(super) per_load: Vec<f64>,
}

/// Which contacts bear, and with what force; carried from one load to the next, which is then nearly solved.
#[derive(Debug, Clone)]
pub(super) struct Bearing {
    /// Places of those that bear.
    active: Vec<usize>,
    /// By contact; nought where it does not bear.
    pub(super) force: Vec<f64>,
}

/// A gap closer to nought than this is shut, m.
const SHUT_M: f64 = 1e-11;
/// Rounds of exchanging whole blocks of contacts before they are taken one by one.
const MOST_EXCHANGES: usize = 25;
/// Rounds in a row with no fewer contacts wrong before only one of them is exchanged.
const PATIENCE: u32 = 3;
/// What taking contacts one by one may cost before whole blocks are exchanged, in products: from one load to the next few change.
const LITTLE_WORK: usize = 300_000;
/// Most that it may cost after that: about two seconds.
const MOST_WORK: usize = 3_000_000_000;

impl Bearing {
    /// Nothing bears.
    pub(super) fn nothing(count: usize) -> Self {
        Bearing { active: Vec::new(), force: vec![0.0; count] }
    }

    /// The same among more contacts, each now at another place.
    pub(super) fn moved_to(&self, now_at: &[usize], count: usize) -> Self {
        let mut force = vec![0.0; count];
        for (place, now) in now_at.iter().enumerate() {
            if let (Some(there), Some(was)) = (force.get_mut(*now), self.force.get(place)) {
                *there = *was;
            }
        }
        let active = self.active.iter().filter_map(|place| now_at.get(*place).copied()).collect();
        Bearing { active, force }
    }
}

impl Contacts {
    /// Solves at a load, beginning with what bears now; false when it was not found within a counted number of turns.
    pub(super) fn solve(&self, load: f64, bearing: &mut Bearing) -> bool {
        let mut room = Room::default();
        self.one_by_one(load, bearing, &mut room, LITTLE_WORK)
            || self.exchange(load, bearing, &mut room)
            || self.one_by_one(load, bearing, &mut room, MOST_WORK)
    }

    /// Block principal pivoting: whatever would pull is let go and whatever overlaps is taken in, all at once; where that gains
    /// nothing for a while, one at a time. Mostly done in a few rounds, however many contacts there are; it may go round, and then
    /// leaves the bearing as it was.
    ///
    /// # Source     Júdice and Pires, Computers & Operations Research 21 (1994), 587-596 (from memory)
    #[expect(clippy::indexing_slicing, reason = "places are below the count")]
    fn exchange(&self, load: f64, bearing: &mut Bearing, room: &mut Room) -> bool {
        let mut bears = vec![false; self.count];
        for place in &bearing.active {
            bears[*place] = true;
        }
        let (mut fewest, mut patience) = (usize::MAX, PATIENCE);
        for _ in 0..MOST_EXCHANGES {
            let places: Vec<usize> = (0..self.count).filter(|place| bears[*place]).collect();
            if !self.shut(load, &places, room) {
                return false;
            }
            let mut force = vec![0.0; self.count];
            for (place, wanted) in places.iter().zip(&room.force) {
                force[*place] = *wanted;
            }
            // What is left of a force is weighed by the gap that it shuts.
            let is_wrong = |place: &usize| match bears[*place] {
                true => force[*place] * self.compliance[place * (self.count + 1)] < -SHUT_M,
                false => self.open(load, *place, &places, &force) < -SHUT_M,
            };
            let wrong: Vec<usize> = (0..self.count).filter(is_wrong).collect();
            let Some(last) = wrong.last() else {
                *bearing = Bearing {
                    active: places.into_iter().filter(|place| force[*place] > 0.0).collect(),
                    force: force.into_iter().map(|force| force.max(0.0)).collect(),
                };
                return true;
            };
            if wrong.len() < fewest {
                (fewest, patience) = (wrong.len(), PATIENCE);
            } else if patience > 0 {
                patience -= 1;
            } else {
                bears[*last] = !bears[*last];
                continue;
            }
            for place in wrong {
                bears[place] = !bears[place];
            }
        }
        false
    }

    /// The contacts that bear shut their gaps exactly; what would pull on the way there is let go, the contact with the
    /// largest overlap is taken in, and so on. The energy falls at every turn, so that no set of contacts comes back.
    ///
    /// # Source     primal active-set method, Nocedal and Wright, Numerical Optimization (2nd ed.), 16.5; for `λ ≥ 0` alone,
    /// Lawson and Hanson
    #[expect(clippy::indexing_slicing, reason = "places are below the count")]
    fn one_by_one(&self, load: f64, bearing: &mut Bearing, room: &mut Room, most_work: usize) -> bool {
        let mut work = 0;
        while work < most_work {
            let n = bearing.active.len();
            work += n * n * n / 6 + self.count * n + 1;
            if !self.shut(load, &bearing.active, room) {
                return false;
            }
            // As far towards those forces as none of them pulls.
            let mut step: f64 = 1.0;
            for (place, wanted) in bearing.active.iter().zip(&room.force) {
                let now = bearing.force[*place];
                if *wanted < 0.0 && now - wanted > 0.0 {
                    step = step.min(now / (now - wanted));
                }
            }
            for (place, wanted) in bearing.active.iter().zip(&room.force) {
                bearing.force[*place] += step * (wanted - bearing.force[*place]);
            }
            if step < 1.0 {
                self.let_go(bearing, &room.force);
                continue;
            }
            match self.largest_overlap(load, bearing) {
                None => return true,
                Some(place) => bearing.active.push(place),
            }
        }
        false
    }

    /// Lets go of the contacts that have come to nought and would pull.
    #[expect(clippy::indexing_slicing, reason = "places are below the count")]
    fn let_go(&self, bearing: &mut Bearing, wanted: &[f64]) {
        let Bearing { active, force } = bearing;
        // What is left of a force is weighed by the gap that it shuts.
        let is_nothing = |place: usize, force: f64| force * self.compliance[place * (self.count + 1)] <= SHUT_M;
        let mut wanted = wanted.iter();
        active.retain(|place| {
            let pulls = wanted.next().is_some_and(|wanted| *wanted < 0.0);
            let stays = !(pulls && is_nothing(*place, force[*place]));
            if !stays {
                force[*place] = 0.0;
            }
            stays
        });
    }

    /// Forces that shut the gaps of all contacts that bear, pulling or not.
    #[expect(clippy::indexing_slicing, reason = "places are below the count, and the matrices are as large")]
    fn shut(&self, load: f64, places: &[usize], room: &mut Room) -> bool {
        let n = places.len();
        room.matrix.clear();
        room.matrix.resize(n * n, 0.0);
        room.factor.clear();
        room.factor.resize(n * n, 0.0);
        room.force.clear();
        for (row, place) in places.iter().enumerate() {
            let line = &self.compliance[place * self.count..(place + 1) * self.count];
            for (column, other) in places[..=row].iter().enumerate() {
                room.matrix[row * n + column] = line[*other];
            }
            room.force.push(-(self.gap[*place] + self.per_load[*place] * load));
        }
        if n > 0 && !factorise(&room.matrix, &mut room.factor, n, 0.0) {
            return false;
        }
        solve_factorised(&room.factor, &mut room.force, n);
        true
    }

    /// How far a contact stands open with what bears pressing.
    #[expect(clippy::indexing_slicing, reason = "places are below the count, and the matrices are as large")]
    fn open(&self, load: f64, place: usize, bears: &[usize], force: &[f64]) -> f64 {
        let line = &self.compliance[place * self.count..(place + 1) * self.count];
        let pressed: f64 = bears.iter().map(|other| line[*other] * force[*other]).sum();
        self.gap[place] + self.per_load[place] * load + pressed
    }

    /// The contact that overlaps most, where any does.
    #[expect(clippy::indexing_slicing, reason = "places are below the count, and the matrices are as large")]
    fn largest_overlap(&self, load: f64, bearing: &Bearing) -> Option<usize> {
        let mut worst = (None, -SHUT_M);
        for place in 0..self.count {
            if bearing.force[place] > 0.0 {
                continue;
            }
            let open = self.open(load, place, &bearing.active, &bearing.force);
            if open < worst.1 && !bearing.active.contains(&place) {
                worst = (Some(place), open);
            }
        }
        worst.0
    }
}

/// Room for one solve.
#[derive(Default)]
struct Room {
    matrix: Vec<f64>,
    factor: Vec<f64>,
    /// By active contact.
    force: Vec<f64>,
}
