-- Sheets of a job that are written as a whole: what the customer wants, the load plan, the look-over, the control drive.
-- One of each kind stands on a job; a new one takes its place, and the old one stays on record.
CREATE TABLE job_sheets (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    kind          TEXT NOT NULL CHECK (kind IN ('intake', 'load_plan', 'look_over', 'drive')),
    entry         JSONB NOT NULL,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_at  TIMESTAMPTZ,
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX job_sheets_job ON job_sheets (shop_id, job_id);
CREATE INDEX job_sheets_recorded_by ON job_sheets (shop_id, recorded_by);
CREATE UNIQUE INDEX job_sheets_standing ON job_sheets (job_id, kind) WHERE withdrawn_at IS NULL;
