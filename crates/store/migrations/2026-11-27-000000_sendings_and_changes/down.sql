ALTER TABLE readings DROP CONSTRAINT readings_value_si_is_finite;
DROP TABLE job_standings;
DROP TABLE job_changes;
DROP TABLE submissions;
CREATE TABLE submissions (
    token       TEXT PRIMARY KEY,
    shop_id     BIGINT NOT NULL,
    person_id   BIGINT NOT NULL,
    opened_job  BIGINT,
    sent_at     TIMESTAMPTZ NOT NULL DEFAULT now(),
    FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, opened_job) REFERENCES jobs (shop_id, id)
);
CREATE INDEX submissions_opened_job ON submissions (shop_id, opened_job);
CREATE INDEX submissions_person ON submissions (shop_id, person_id);
CREATE INDEX submissions_sent_at ON submissions (sent_at);
