-- Readings are taken again after the drive, and once it has settled; which words there are is the program's to say.
ALTER TABLE readings DROP CONSTRAINT readings_phase_check;
ALTER TABLE readings ADD CONSTRAINT readings_phase_check CHECK (phase ~ '^[a-z][a-z_0-9]{1,39}$');
-- What a shop charges, and when it works; NULL as long as it never said.
ALTER TABLE shops ADD COLUMN terms JSONB;
-- Papers that were signed: what they said then, word for word. None is ever changed; a later one stands beside it.
CREATE TABLE papers (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL,
    job_id       BIGINT NOT NULL,
    entry        JSONB NOT NULL,
    recorded_by  BIGINT NOT NULL,
    recorded_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX papers_job_id ON papers (shop_id, job_id, id);
CREATE INDEX papers_recorded_by ON papers (shop_id, recorded_by);
