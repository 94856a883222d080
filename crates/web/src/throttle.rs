//! How often one address may try something: sign-ons, so far.

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::Mutex;
use std::time::{Duration, Instant};

/// Most addresses remembered; the one not heard of longest makes room.
const MOST_ADDRESSES: usize = 4096;

/// Counts tries by address, each forgotten after a while.
#[derive(Debug)]
pub(crate) struct Throttle {
    most: usize,
    within: Duration,
    tries: Mutex<HashMap<IpAddr, Vec<Instant>>>,
}

impl Throttle {
    /// At most so many tries within so long.
    pub(crate) fn new(most: usize, within: Duration) -> Self {
        Throttle { most, within, tries: Mutex::new(HashMap::new()) }
    }

    /// Counts a try; false when there were too many.
    pub(crate) fn allows(&self, address: IpAddr, now: Instant) -> bool {
        let mut tries = self.tries.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        if tries.len() >= MOST_ADDRESSES && !tries.contains_key(&address) {
            let oldest = tries.iter().min_by_key(|(_, times)| times.last().copied()).map(|(address, _)| *address);
            oldest.map(|address| tries.remove(&address));
        }
        let times = tries.entry(address).or_default();
        times.retain(|time| now.duration_since(*time) < self.within);
        let allowed = times.len() < self.most;
        if allowed {
            times.push(now);
        }
        allowed
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn too_many_tries_wait_and_others_do_not() {
        let throttle = Throttle::new(3, Duration::from_secs(60));
        let (begin, one, other) = (Instant::now(), IpAddr::from([10, 0, 0, 1]), IpAddr::from([10, 0, 0, 2]));
        assert!((0..3).all(|_| throttle.allows(one, begin)));
        assert!(!throttle.allows(one, begin));
        assert!(throttle.allows(other, begin));
        assert!(throttle.allows(one, begin + Duration::from_secs(61)), "a minute later it is as before");
    }

    #[test]
    fn addresses_without_number_are_not_kept_without_number() {
        let throttle = Throttle::new(1, Duration::from_secs(60));
        let now = Instant::now();
        for address in 0..u32::try_from(MOST_ADDRESSES).unwrap() + 50 {
            throttle.allows(IpAddr::from(address.to_be_bytes()), now);
        }
        assert!(throttle.tries.lock().unwrap().len() <= MOST_ADDRESSES);
    }
}
