-- Every row belongs to a shop. Foreign keys carry the shop with them, so that no row can point into another shop.

CREATE TABLE shops (
    id          BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name        TEXT NOT NULL UNIQUE,
    created_at  TIMESTAMPTZ NOT NULL DEFAULT now()
);

CREATE TABLE people (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL REFERENCES shops (id),
    name         TEXT NOT NULL,
    trade        TEXT NOT NULL,
    length_unit  TEXT NOT NULL DEFAULT 'in' CHECK (length_unit IN ('in', 'mm')),
    weight_unit  TEXT NOT NULL DEFAULT 'lb' CHECK (weight_unit IN ('lb', 'kg')),
    created_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    UNIQUE (shop_id, name),
    UNIQUE (shop_id, id)
);

-- The browser holds the key; only its hash is kept.
CREATE TABLE sessions (
    key_hash    TEXT PRIMARY KEY,
    shop_id     BIGINT,
    person_id   BIGINT,
    state       JSONB NOT NULL,
    expires_at  TIMESTAMPTZ NOT NULL,
    FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX sessions_person ON sessions (shop_id, person_id);
CREATE INDEX sessions_expiry ON sessions (expires_at);

-- Lengths are in metres and forces in newtons; beside each stands what was typed, with the unit it was typed in.
CREATE TABLE jobs (
    id                     BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id                BIGINT NOT NULL REFERENCES shops (id),
    number                 INTEGER NOT NULL,
    label                  TEXT NOT NULL,
    vehicle_class          TEXT NOT NULL CHECK (vehicle_class IN
                               ('half_ton_pickup', 'one_ton_pickup', 'flatbed', 'van', 'box_truck', 'motorhome')),
    rear_wheels            TEXT NOT NULL CHECK (rear_wheels IN ('single', 'dual')),
    wheelbase              JSONB NOT NULL,
    front_rating           JSONB NOT NULL,
    rear_rating            JSONB NOT NULL,
    gross_rating           JSONB,
    kerb_front             JSONB,
    kerb_rear              JSONB,
    datum                  TEXT CHECK (datum IN ('ground_to_arch', 'hub_to_arch')),
    rolled_and_bounced     BOOLEAN NOT NULL DEFAULT FALSE,
    rear_rise_confirmed    BOOLEAN NOT NULL DEFAULT FALSE,
    revision               INTEGER NOT NULL DEFAULT 1,
    revised_by             BIGINT NOT NULL,
    revised_at             TIMESTAMPTZ NOT NULL DEFAULT now(),
    opened_by              BIGINT NOT NULL,
    opened_at              TIMESTAMPTZ NOT NULL DEFAULT now(),
    finished_at            TIMESTAMPTZ,
    UNIQUE (shop_id, number),
    UNIQUE (shop_id, id),
    FOREIGN KEY (shop_id, revised_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, opened_by) REFERENCES people (shop_id, id)
);
CREATE INDEX jobs_revised_by ON jobs (shop_id, revised_by);
CREATE INDEX jobs_opened_by ON jobs (shop_id, opened_by);

-- Nothing measured is overwritten: a corrected reading is withdrawn and stays.
CREATE TABLE readings (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    phase         TEXT NOT NULL CHECK (phase IN ('found', 'fitted')),
    load_state    TEXT NOT NULL CHECK (load_state IN ('empty', 'loaded')),
    place         TEXT NOT NULL CHECK (place IN ('front_left', 'front_right', 'rear_left', 'rear_right', 'stop_gap')),
    ordinal       SMALLINT NOT NULL,
    datum         TEXT NOT NULL CHECK (datum IN ('ground_to_arch', 'hub_to_arch')),
    height_text   TEXT NOT NULL,
    height_unit   TEXT NOT NULL CHECK (height_unit IN ('in', 'mm')),
    height_m      DOUBLE PRECISION NOT NULL,
    taken_by      BIGINT NOT NULL,
    taken_at      TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_by  BIGINT,
    withdrawn_at  TIMESTAMPTZ,
    CHECK ((withdrawn_by IS NULL) = (withdrawn_at IS NULL)),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, taken_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, withdrawn_by) REFERENCES people (shop_id, id)
);
CREATE INDEX readings_job ON readings (shop_id, job_id);
CREATE INDEX readings_taken_by ON readings (shop_id, taken_by);
CREATE INDEX readings_withdrawn_by ON readings (shop_id, withdrawn_by);
CREATE UNIQUE INDEX readings_standing ON readings (job_id, phase, load_state, place, ordinal) WHERE withdrawn_at IS NULL;

CREATE TABLE loads (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    entry         JSONB NOT NULL,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_at  TIMESTAMPTZ,
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX loads_job ON loads (shop_id, job_id);
CREATE INDEX loads_recorded_by ON loads (shop_id, recorded_by);
CREATE UNIQUE INDEX loads_standing ON loads (job_id) WHERE withdrawn_at IS NULL;

CREATE TABLE aims (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    entry         JSONB NOT NULL,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_at  TIMESTAMPTZ,
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX aims_job ON aims (shop_id, job_id);
CREATE INDEX aims_recorded_by ON aims (shop_id, recorded_by);
CREATE UNIQUE INDEX aims_standing ON aims (job_id) WHERE withdrawn_at IS NULL;

CREATE TABLE corrections (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    entry         JSONB NOT NULL,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_at  TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX corrections_job ON corrections (shop_id, job_id);
CREATE INDEX corrections_recorded_by ON corrections (shop_id, recorded_by);

-- What was chosen to be fitted, with the prediction as it stood then: proof is held against that.
CREATE TABLE fittings (
    id             BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id        BIGINT NOT NULL,
    job_id         BIGINT NOT NULL,
    correction_id  BIGINT NOT NULL,
    predicted      JSONB NOT NULL,
    recorded_by    BIGINT NOT NULL,
    recorded_at    TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_at   TIMESTAMPTZ,
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, correction_id) REFERENCES corrections (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX fittings_job ON fittings (shop_id, job_id);
CREATE INDEX fittings_correction ON fittings (shop_id, correction_id);
CREATE INDEX fittings_recorded_by ON fittings (shop_id, recorded_by);
CREATE UNIQUE INDEX fittings_standing ON fittings (job_id) WHERE withdrawn_at IS NULL;

-- One row for each form sent in, by the token the form carried: a double tap finds its first tap here.
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
