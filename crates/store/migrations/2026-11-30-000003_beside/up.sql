-- Counts what changes of a job beside its revisions (a tick, a signature, whose vehicle it is), so that what was gathered of it before
-- is known to be out of date, also where the two come at the same moment.
ALTER TABLE jobs ADD COLUMN beside INTEGER NOT NULL DEFAULT 0;
ALTER TABLE job_standings ADD COLUMN beside INTEGER NOT NULL DEFAULT 0;
