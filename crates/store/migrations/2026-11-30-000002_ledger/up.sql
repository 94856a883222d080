-- What parts really did: each height after fitting held against its promise. Gathered from the record, and thrown away freely.
CREATE TABLE ledger_lines (
    id             BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id        BIGINT NOT NULL,
    job_id         BIGINT NOT NULL,
    kind           TEXT NOT NULL CHECK (kind ~ '^[a-z_]{1,40}$'),
    part_number    TEXT NOT NULL DEFAULT '',
    vehicle_class  TEXT NOT NULL,
    axle_end       TEXT NOT NULL,
    load_state     TEXT NOT NULL,
    load_si        DOUBLE PRECISION,
    before_m       DOUBLE PRECISION NOT NULL,
    promised_m     DOUBLE PRECISION NOT NULL,
    band_m         DOUBLE PRECISION NOT NULL,
    read_m         DOUBLE PRECISION NOT NULL,
    first_m        DOUBLE PRECISION,
    deviations     DOUBLE PRECISION,
    sd             DOUBLE PRECISION,
    says_the_most  BOOLEAN NOT NULL DEFAULT FALSE,
    read_on        DATE NOT NULL,
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
);
CREATE INDEX ledger_lines_job ON ledger_lines (shop_id, job_id);
CREATE INDEX ledger_lines_part ON ledger_lines (shop_id, lower(btrim(part_number))) WHERE part_number <> '';

-- Parts whose record does not count in predictions, by the shop's word; the last row of a number counts.
CREATE TABLE record_switches (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL,
    part_number  TEXT NOT NULL,
    counts       BOOLEAN NOT NULL,
    recorded_by  BIGINT NOT NULL,
    recorded_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX record_switches_part ON record_switches (shop_id, lower(btrim(part_number)), id);
CREATE INDEX record_switches_recorded_by ON record_switches (shop_id, recorded_by);
