-- Photographs of a job, made anew from what was sent: nothing of the sender's file but the picture is kept.
CREATE TABLE photographs (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    subject       TEXT NOT NULL,
    jpeg          BYTEA NOT NULL,
    width         INTEGER NOT NULL,
    height        INTEGER NOT NULL,
    taken_by      BIGINT NOT NULL,
    taken_at      TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_by  BIGINT,
    withdrawn_at  TIMESTAMPTZ,
    CHECK ((withdrawn_by IS NULL) = (withdrawn_at IS NULL)),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, taken_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, withdrawn_by) REFERENCES people (shop_id, id)
);
CREATE INDEX photographs_job ON photographs (shop_id, job_id);
CREATE INDEX photographs_taken_by ON photographs (shop_id, taken_by);
CREATE INDEX photographs_withdrawn_by ON photographs (shop_id, withdrawn_by);
