-- What was ticked on a job's wrench card: each tick under a key that the device made, so that one sent twice is one. A tick is never
-- changed; what was answered wrongly is taken back by another.
CREATE TABLE wrench_ticks (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL,
    job_id       BIGINT NOT NULL,
    device_key   TEXT NOT NULL CHECK (device_key ~ '^[0-9A-Za-z-]{8,64}$'),
    entry        JSONB NOT NULL,
    ticked_at    TIMESTAMPTZ NOT NULL,
    recorded_by  BIGINT NOT NULL,
    recorded_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    UNIQUE (shop_id, device_key),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX wrench_ticks_job_id ON wrench_ticks (shop_id, job_id, id);
CREATE INDEX wrench_ticks_recorded_by ON wrench_ticks (shop_id, recorded_by);
