-- Searching within words, and times that must not overlap: extensions that PostgreSQL brings along, and that the owner of a database may
-- put in.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE EXTENSION IF NOT EXISTS btree_gin;
CREATE EXTENSION IF NOT EXISTS btree_gist;

-- Whose vehicle it is. What is written of a person can be erased; what was measured of the vehicle stays.
CREATE TABLE customers (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL,
    name         TEXT NOT NULL CHECK (name <> ''),
    phone        TEXT NOT NULL DEFAULT '',
    note         TEXT NOT NULL DEFAULT '',
    revision     INTEGER NOT NULL DEFAULT 1,
    recorded_by  BIGINT NOT NULL,
    recorded_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    erased_at    TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX customers_recorded_by ON customers (shop_id, recorded_by);
CREATE INDEX customers_name ON customers (shop_id, lower(name));

-- A vehicle over all its visits. Its plate is kept as typed, and found by its letters and digits alone.
CREATE TABLE vehicles (
    id             BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id        BIGINT NOT NULL,
    customer_id    BIGINT,
    plate          TEXT NOT NULL DEFAULT '',
    plate_key      TEXT NOT NULL DEFAULT '',
    vehicle_class  TEXT NOT NULL CHECK (vehicle_class ~ '^[a-z][a-z_0-9]{1,39}$'),
    revision       INTEGER NOT NULL DEFAULT 1,
    recorded_by    BIGINT NOT NULL,
    recorded_at    TIMESTAMPTZ NOT NULL DEFAULT now(),
    UNIQUE (shop_id, id),
    FOREIGN KEY (shop_id, customer_id) REFERENCES customers (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX vehicles_customer ON vehicles (shop_id, customer_id);
CREATE INDEX vehicles_recorded_by ON vehicles (shop_id, recorded_by);
CREATE UNIQUE INDEX vehicles_plate ON vehicles (shop_id, plate_key) WHERE plate_key <> '';

ALTER TABLE jobs ADD COLUMN vehicle_id BIGINT;
ALTER TABLE jobs ADD COLUMN assigned_to BIGINT;
ALTER TABLE jobs ADD COLUMN promised_on DATE;
ALTER TABLE jobs ADD COLUMN comes_back_from BIGINT;
-- What a job is found by, in small letters: gathered from its record, and thrown away freely.
ALTER TABLE jobs ADD COLUMN searched TEXT NOT NULL DEFAULT '';
UPDATE jobs SET searched = lower(label);
ALTER TABLE jobs ADD CONSTRAINT jobs_vehicle FOREIGN KEY (shop_id, vehicle_id) REFERENCES vehicles (shop_id, id);
ALTER TABLE jobs ADD CONSTRAINT jobs_assigned_to FOREIGN KEY (shop_id, assigned_to) REFERENCES people (shop_id, id);
ALTER TABLE jobs ADD CONSTRAINT jobs_comes_back_from FOREIGN KEY (shop_id, comes_back_from) REFERENCES jobs (shop_id, id);
CREATE INDEX jobs_vehicle ON jobs (shop_id, vehicle_id);
CREATE INDEX jobs_assigned_to ON jobs (shop_id, assigned_to);
CREATE INDEX jobs_comes_back_from ON jobs (shop_id, comes_back_from);
CREATE INDEX jobs_searched ON jobs USING gin (shop_id, searched gin_trgm_ops);
CREATE INDEX jobs_open ON jobs (shop_id, number) WHERE finished_at IS NULL;

-- By which program's rules a standing was reckoned: by those of another one it is reckoned again, and not thrown away at every start.
ALTER TABLE job_standings ADD COLUMN rules TEXT NOT NULL DEFAULT '';

-- What is due on a job and by which day, gathered with its standing.
CREATE TABLE job_dues (
    id       BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id  BIGINT NOT NULL,
    job_id   BIGINT NOT NULL,
    what     TEXT NOT NULL CHECK (what ~ '^[a-z_]{1,40}$'),
    day      DATE NOT NULL,
    UNIQUE (job_id, what),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
);
CREATE INDEX job_dues_job ON job_dues (shop_id, job_id);
CREATE INDEX job_dues_day ON job_dues (shop_id, day);

-- What was said to something that is due: done, called, or the customer does not want it. None is ever changed.
CREATE TABLE due_marks (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL,
    job_id       BIGINT NOT NULL,
    what         TEXT NOT NULL CHECK (what ~ '^[a-z_]{1,40}$'),
    mark         TEXT NOT NULL CHECK (mark ~ '^[a-z_]{1,40}$'),
    note         TEXT NOT NULL DEFAULT '',
    recorded_by  BIGINT NOT NULL,
    recorded_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id)
);
CREATE INDEX due_marks_job ON due_marks (shop_id, job_id, id);
CREATE INDEX due_marks_recorded_by ON due_marks (shop_id, recorded_by);

CREATE TABLE bays (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    name          TEXT NOT NULL CHECK (name <> ''),
    has_lift      BOOLEAN NOT NULL,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_by  BIGINT,
    withdrawn_at  TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    CHECK ((withdrawn_by IS NULL) = (withdrawn_at IS NULL)),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, withdrawn_by) REFERENCES people (shop_id, id)
);
CREATE INDEX bays_recorded_by ON bays (shop_id, recorded_by);
CREATE INDEX bays_withdrawn_by ON bays (shop_id, withdrawn_by);

-- A vehicle in a bay, nights in between included: it stands on its stands there. No bay holds two at once, and no vehicle is in two.
CREATE TABLE bookings (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    bay_id        BIGINT NOT NULL,
    job_id        BIGINT NOT NULL,
    begins_at     TIMESTAMPTZ NOT NULL,
    ends_at       TIMESTAMPTZ NOT NULL,
    person_id     BIGINT,
    second_id     BIGINT,
    follows       BIGINT,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_by  BIGINT,
    withdrawn_at  TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    CHECK (begins_at < ends_at),
    CHECK ((withdrawn_by IS NULL) = (withdrawn_at IS NULL)),
    CHECK (second_id IS NULL OR second_id <> person_id),
    CONSTRAINT bookings_bay_taken EXCLUDE USING gist (bay_id WITH =, tstzrange(begins_at, ends_at) WITH &&) WHERE (withdrawn_at IS NULL),
    CONSTRAINT bookings_job_taken EXCLUDE USING gist (job_id WITH =, tstzrange(begins_at, ends_at) WITH &&) WHERE (withdrawn_at IS NULL),
    FOREIGN KEY (shop_id, bay_id) REFERENCES bays (shop_id, id),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
    FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, second_id) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, follows) REFERENCES bookings (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, withdrawn_by) REFERENCES people (shop_id, id)
);
CREATE INDEX bookings_bay ON bookings (shop_id, bay_id);
CREATE INDEX bookings_job ON bookings (shop_id, job_id);
CREATE INDEX bookings_person ON bookings (shop_id, person_id);
CREATE INDEX bookings_second ON bookings (shop_id, second_id);
CREATE INDEX bookings_follows ON bookings (shop_id, follows);
CREATE INDEX bookings_recorded_by ON bookings (shop_id, recorded_by);
CREATE INDEX bookings_withdrawn_by ON bookings (shop_id, withdrawn_by);
CREATE INDEX bookings_begins ON bookings (shop_id, begins_at) WHERE withdrawn_at IS NULL;

-- Secret links by which a calendar program reads the bays. Of a link only its hash is kept.
CREATE TABLE calendar_links (
    id          BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id     BIGINT NOT NULL,
    key_hash    TEXT NOT NULL UNIQUE,
    made_by     BIGINT NOT NULL,
    made_at     TIMESTAMPTZ NOT NULL DEFAULT now(),
    revoked_at  TIMESTAMPTZ,
    FOREIGN KEY (shop_id, made_by) REFERENCES people (shop_id, id)
);
CREATE INDEX calendar_links_made_by ON calendar_links (shop_id, made_by);
