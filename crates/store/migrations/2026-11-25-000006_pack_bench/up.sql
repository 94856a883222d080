-- The pack bench is one more sheet of a job; and a sheet knows which one it took the place of, so that a step can be taken back.
ALTER TABLE job_sheets DROP CONSTRAINT job_sheets_kind_check;
ALTER TABLE job_sheets ADD CONSTRAINT job_sheets_kind_check CHECK (kind IN ('intake', 'load_plan', 'look_over', 'drive', 'bench'));
ALTER TABLE job_sheets ADD COLUMN follows BIGINT REFERENCES job_sheets (id);
CREATE INDEX job_sheets_follows ON job_sheets (follows);
