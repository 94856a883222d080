DROP TABLE calendar_links;
DROP TABLE bookings;
DROP TABLE bays;
DROP TABLE due_marks;
DROP TABLE job_dues;
ALTER TABLE job_standings DROP COLUMN rules;
DROP INDEX jobs_open;
DROP INDEX jobs_searched;
ALTER TABLE jobs DROP COLUMN searched, DROP COLUMN comes_back_from, DROP COLUMN promised_on, DROP COLUMN assigned_to,
    DROP COLUMN vehicle_id;
DROP TABLE vehicles;
DROP TABLE customers;
DROP EXTENSION btree_gist;
DROP EXTENSION btree_gin;
DROP EXTENSION pg_trgm;
