DROP INDEX job_sheets_follows;
ALTER TABLE job_sheets DROP COLUMN follows;
DELETE FROM job_sheets WHERE kind = 'bench';
ALTER TABLE job_sheets DROP CONSTRAINT job_sheets_kind_check;
ALTER TABLE job_sheets ADD CONSTRAINT job_sheets_kind_check CHECK (kind IN ('intake', 'load_plan', 'look_over', 'drive'));
