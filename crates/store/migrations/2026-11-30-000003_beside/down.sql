ALTER TABLE job_standings DROP COLUMN beside;
ALTER TABLE jobs DROP COLUMN beside;
