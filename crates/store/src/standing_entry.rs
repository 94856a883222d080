//! What loads and aims have in common: one entry stands on a job, and a new one takes its place while the old stays on record.

macro_rules! standing_entry {
    ($table:ident, $Entry:ident) => {
        use chrono::{DateTime, Utc};
        use diesel::prelude::*;

        use crate::json::Json;
        use crate::person::Person;
        use crate::schema::$table;
        use crate::{JobId, PersonId, ShopId, StoreError};
        use wise_badger_casework::entry::$Entry;

        /// The one that stands on a job.
        #[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
        #[diesel(table_name = $table)]
        pub struct Recorded {
            /// The job.
            pub job_id: JobId,
            /// As typed.
            pub entry: Json<$Entry>,
            /// Who put it down.
            pub recorded_by: PersonId,
            /// When.
            pub recorded_at: DateTime<Utc>,
        }

        /// Those that stand on a job.
        pub fn standing(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Recorded>, StoreError> {
            Ok($table::table
                .filter($table::shop_id.eq(shop))
                .filter($table::job_id.eq(job))
                .filter($table::withdrawn_at.is_null())
                .select(Recorded::as_select())
                .load(connection)?)
        }

        /// Puts a new one in place of the standing one, which stays on record; an unchanged one is left alone.
        pub fn replace(
            connection: &mut PgConnection,
            person: &Person,
            job: JobId,
            entry: Option<&$Entry>,
        ) -> Result<(), StoreError> {
            let standing = standing(connection, person.shop_id, job)?;
            if standing.first().map(|recorded| &recorded.entry.0) == entry {
                return Ok(());
            }
            let of_job = $table::table.filter($table::shop_id.eq(person.shop_id)).filter($table::job_id.eq(job));
            diesel::update(of_job.filter($table::withdrawn_at.is_null()))
                .set($table::withdrawn_at.eq(Some(Utc::now())))
                .execute(connection)?;
            if let Some(entry) = entry {
                diesel::insert_into($table::table)
                    .values((
                        $table::shop_id.eq(person.shop_id),
                        $table::job_id.eq(job),
                        $table::entry.eq(Json(entry.clone())),
                        $table::recorded_by.eq(person.id),
                    ))
                    .execute(connection)?;
            }
            Ok(())
        }
    };
}

pub(crate) use standing_entry;
