//! The schema itself.

use diesel::prelude::*;
use diesel::sql_types::Text;
use diesel_migrations::{FileBasedMigrations, MigrationHarness};
use wise_badger_store::test_support::TestDatabase;

#[derive(QueryableByName, Debug, PartialEq)]
struct Line {
    #[diesel(sql_type = Text)]
    line: String,
}

fn lines(connection: &mut PgConnection, query: &str) -> Vec<String> {
    let rows: Vec<Line> = diesel::sql_query(query).load(connection).unwrap();
    rows.into_iter().map(|row| row.line).collect()
}

const SHAPE: &str = "
    SELECT table_name || '.' || column_name || ' ' || data_type || ' ' || is_nullable || ' ' || coalesce(column_default, '') AS line
      FROM information_schema.columns WHERE table_schema = 'public' AND table_name NOT LIKE '\\_\\_%'
    UNION ALL SELECT indexdef FROM pg_indexes WHERE schemaname = 'public' AND tablename NOT LIKE '\\_\\_%'
    UNION ALL SELECT conrelid::regclass || ' ' || pg_get_constraintdef(oid) FROM pg_constraint
      WHERE connamespace = 'public'::regnamespace AND conrelid::regclass::text NOT LIKE '\\_\\_%'
    ORDER BY 1";

#[test]
fn migrations_go_down_to_nothing_and_up_to_the_same_schema() {
    let database = TestDatabase::create();
    drop(database.open());
    let mut connection = PgConnection::establish(&database.url()).unwrap();
    let before = lines(&mut connection, SHAPE);
    assert!(before.iter().any(|line| line.starts_with("readings.value_si double precision NO")), "{before:#?}");
    let migrations = FileBasedMigrations::find_migrations_directory().unwrap();
    connection.revert_all_migrations(migrations.clone()).unwrap();
    assert_eq!(lines(&mut connection, SHAPE), Vec::<String>::new());
    connection.run_pending_migrations(migrations).unwrap();
    assert_eq!(lines(&mut connection, SHAPE), before);
}

#[test]
fn every_foreign_key_has_an_index_that_begins_with_it() {
    let database = TestDatabase::create();
    let mut connection = database.scratch_connection();
    let bare = lines(
        &mut connection,
        "SELECT c.conrelid::regclass || ': ' || pg_get_constraintdef(c.oid) AS line FROM pg_constraint c
          WHERE c.contype = 'f' AND NOT EXISTS (SELECT 1 FROM pg_index i WHERE i.indrelid = c.conrelid
            AND (i.indkey::int2[])[0:cardinality(c.conkey) - 1] = c.conkey)",
    );
    assert_eq!(bare, Vec::<String>::new());
}

#[test]
fn every_table_but_the_shops_and_what_failed_before_one_was_named_belongs_to_a_shop() {
    let database = TestDatabase::create();
    let mut connection = database.scratch_connection();
    let homeless = lines(
        &mut connection,
        "SELECT table_name AS line FROM information_schema.tables t WHERE table_schema = 'public'
            AND table_name NOT LIKE '\\_\\_%' AND NOT EXISTS (SELECT 1 FROM information_schema.columns c
            WHERE c.table_schema = 'public' AND c.table_name = t.table_name AND c.column_name = 'shop_id') ORDER BY 1",
    );
    assert_eq!(homeless, ["failed_sign_ins", "shops"]);
}
