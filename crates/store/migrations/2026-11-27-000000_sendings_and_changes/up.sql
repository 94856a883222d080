-- A form is known by who sent it, from which form of which job, and under which token; with it stands what it held and what
-- saving it made, so that the same sending is answered as before and another one is told apart. Those kept before held only a
-- token, good for nothing now: no page that was open then can be sent again.
DROP TABLE submissions;
CREATE TABLE submissions (
    shop_id         BIGINT NOT NULL,
    person_id       BIGINT NOT NULL,
    form            TEXT NOT NULL,
    token           TEXT NOT NULL,
    content_hash    TEXT NOT NULL,
    earlier_hashes  TEXT[] NOT NULL DEFAULT '{}',
    job_id          BIGINT,
    revision        INTEGER,
    sent_at         TIMESTAMPTZ NOT NULL DEFAULT now(),
    PRIMARY KEY (shop_id, person_id, form, token),
    CHECK ((job_id IS NULL) = (revision IS NULL)),
    FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
);
CREATE INDEX submissions_job ON submissions (shop_id, job_id);
CREATE INDEX submissions_sent_at ON submissions (sent_at);

-- What was changed in place, or taken off without anything coming in its stead: before and after, who and when.
CREATE TABLE job_changes (
    id          BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id     BIGINT NOT NULL,
    job_id      BIGINT NOT NULL,
    what        TEXT NOT NULL CHECK (what ~ '^[a-z_]{1,40}$'),
    before      JSONB,
    after       JSONB,
    changed_by  BIGINT NOT NULL,
    changed_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, changed_by) REFERENCES people (shop_id, id)
);
CREATE INDEX job_changes_job ON job_changes (shop_id, job_id, changed_at);
CREATE INDEX job_changes_changed_by ON job_changes (shop_id, changed_by);

-- How far a job had come at one of its revisions: reckoned from the record and thrown away freely, so that a list need not read
-- whole jobs.
CREATE TABLE job_standings (
    job_id    BIGINT PRIMARY KEY,
    shop_id   BIGINT NOT NULL,
    revision  INTEGER NOT NULL,
    standing  JSONB NOT NULL,
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
);
CREATE INDEX job_standings_job ON job_standings (shop_id, job_id);

-- No figure that is none is ever kept.
ALTER TABLE readings ADD CONSTRAINT readings_value_si_is_finite
    CHECK (value_si > '-Infinity'::DOUBLE PRECISION AND value_si < 'Infinity'::DOUBLE PRECISION);
