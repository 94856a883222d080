-- What was said before a vehicle came in. A call that is changed or struck off stays on record, and a changed one knows which it
-- followed; one whose vehicle came in knows the job that it became.
CREATE TABLE calls (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    entry         JSONB NOT NULL,
    follows       BIGINT,
    job_id        BIGINT,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_by  BIGINT,
    withdrawn_at  TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    CHECK ((withdrawn_by IS NULL) = (withdrawn_at IS NULL)),
    FOREIGN KEY (shop_id, follows) REFERENCES calls (shop_id, id),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, withdrawn_by) REFERENCES people (shop_id, id)
);
CREATE INDEX calls_expected ON calls (shop_id, id) WHERE withdrawn_at IS NULL AND job_id IS NULL;
CREATE INDEX calls_follows ON calls (shop_id, follows);
CREATE INDEX calls_job_id ON calls (shop_id, job_id);
CREATE INDEX calls_recorded_by ON calls (shop_id, recorded_by);
CREATE INDEX calls_withdrawn_by ON calls (shop_id, withdrawn_by);
