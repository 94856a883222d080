//! Keys, each a type of its own so that one cannot be passed for another.

use diesel_derive_newtype::DieselNewType;
use serde::{Deserialize, Serialize};

/// Key of a shop.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType, Serialize, Deserialize)]
pub struct ShopId(pub i64);

/// Key of a person.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType, Serialize, Deserialize)]
pub struct PersonId(pub i64);

/// Key of a tablet that was let into a shop.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType, Serialize, Deserialize)]
pub struct TabletId(pub i64);

/// Key of an invitation.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct InvitationId(pub i64);

/// Key of a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct JobId(pub i64);

/// The number a shop knows a job by, counted from 1 in each shop.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct JobNumber(pub i32);

/// Key of a reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct ReadingId(pub i64);

/// Key of a photograph.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct PhotographId(pub i64);

/// Key of a call.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct CallId(pub i64);

/// Key of a part on the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct ShelfPartId(pub i64);

/// Key of a correction considered on a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct CorrectionId(pub i64);

/// Key of a bay.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct BayId(pub i64);

/// Key of a booking.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct BookingId(pub i64);

/// Key of a customer.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct CustomerId(pub i64);

/// Key of a vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct VehicleId(pub i64);

/// Key of a calendar's link.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, DieselNewType)]
pub struct CalendarLinkId(pub i64);
