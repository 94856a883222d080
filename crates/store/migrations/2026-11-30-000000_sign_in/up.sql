-- A shop is named at sign-in by a word of its own; the demo shop is the one that nobody needs a password for.
ALTER TABLE shops ADD COLUMN handle TEXT;
UPDATE shops SET handle = 'shop-' || id;
ALTER TABLE shops ALTER COLUMN handle SET NOT NULL;
ALTER TABLE shops ADD CONSTRAINT shops_handle_check CHECK (handle ~ '^[a-z0-9][a-z0-9-]{1,39}$');
CREATE UNIQUE INDEX shops_handle ON shops (handle);
ALTER TABLE shops ADD COLUMN demo BOOLEAN NOT NULL DEFAULT FALSE;
-- Two shops of one database may well be called the same.
ALTER TABLE shops DROP CONSTRAINT shops_name_key;

-- What somebody may do goes by their role. Until now everybody could do everything: whoever was there first owns the shop, and the
-- others lead until an owner says otherwise. A password and a PIN are kept as their argon2id hashes.
ALTER TABLE people ADD COLUMN role TEXT NOT NULL DEFAULT 'lead' CHECK (role ~ '^[a-z_]{1,40}$');
ALTER TABLE people ALTER COLUMN role DROP DEFAULT;
UPDATE people SET role = 'owner' WHERE id IN (SELECT min(id) FROM people GROUP BY shop_id);
ALTER TABLE people ADD COLUMN password_hash TEXT;
ALTER TABLE people ADD COLUMN pin_hash TEXT;
ALTER TABLE people ADD COLUMN left_at TIMESTAMPTZ;

-- A tablet that an owner let into the shop: whoever has a PIN signs in on it by name.
CREATE TABLE tablets (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id      BIGINT NOT NULL,
    name         TEXT NOT NULL CHECK (name <> ''),
    key_hash     TEXT NOT NULL UNIQUE,
    enrolled_by  BIGINT NOT NULL,
    enrolled_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    revoked_by   BIGINT,
    revoked_at   TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    CHECK ((revoked_by IS NULL) = (revoked_at IS NULL)),
    FOREIGN KEY (shop_id, enrolled_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, revoked_by) REFERENCES people (shop_id, id)
);
CREATE INDEX tablets_enrolled_by ON tablets (shop_id, enrolled_by);
CREATE INDEX tablets_revoked_by ON tablets (shop_id, revoked_by);

-- A session ends some time after it was last used, and some time after it began, whichever comes first.
DELETE FROM sessions;
ALTER TABLE sessions ADD COLUMN began_at TIMESTAMPTZ NOT NULL DEFAULT now();
ALTER TABLE sessions ADD COLUMN seen_at TIMESTAMPTZ NOT NULL DEFAULT now();
ALTER TABLE sessions ADD COLUMN tablet_id BIGINT;
ALTER TABLE sessions ADD CONSTRAINT sessions_tablet FOREIGN KEY (shop_id, tablet_id) REFERENCES tablets (shop_id, id);
CREATE INDEX sessions_tablet ON sessions (shop_id, tablet_id);

-- Links that let somebody in once: to open a shop, to join one, to set a password anew. Of a link only its hash is kept.
CREATE TABLE invitations (
    id           BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    key_hash     TEXT NOT NULL UNIQUE,
    kind         TEXT NOT NULL CHECK (kind ~ '^[a-z_]{1,40}$'),
    shop_id      BIGINT,
    name         TEXT,
    role         TEXT,
    person_id    BIGINT,
    made_by      BIGINT,
    made_at      TIMESTAMPTZ NOT NULL DEFAULT now(),
    expires_at   TIMESTAMPTZ NOT NULL,
    used_at      TIMESTAMPTZ,
    revoked_at   TIMESTAMPTZ,
    FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, made_by) REFERENCES people (shop_id, id)
);
CREATE INDEX invitations_person ON invitations (shop_id, person_id);
CREATE INDEX invitations_made_by ON invitations (shop_id, made_by);

-- Sign-ins that failed, by what they are counted under, hashed: an account, a device, an address.
CREATE TABLE failed_sign_ins (
    id         BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    subject    TEXT NOT NULL,
    failed_at  TIMESTAMPTZ NOT NULL DEFAULT now()
);
CREATE INDEX failed_sign_ins_subject ON failed_sign_ins (subject, failed_at);
CREATE INDEX failed_sign_ins_failed_at ON failed_sign_ins (failed_at);

-- Devices on which somebody has signed in: strangers who guess elsewhere do not keep them out.
CREATE TABLE known_devices (
    key_hash   TEXT NOT NULL,
    shop_id    BIGINT NOT NULL,
    person_id  BIGINT NOT NULL,
    last_at    TIMESTAMPTZ NOT NULL DEFAULT now(),
    PRIMARY KEY (key_hash, shop_id, person_id),
    FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX known_devices_person ON known_devices (shop_id, person_id);

-- What was changed of the shop itself, its people and its devices: before and after, who and when.
CREATE TABLE shop_changes (
    id          BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id     BIGINT NOT NULL,
    what        TEXT NOT NULL CHECK (what ~ '^[a-z_]{1,40}$'),
    subject     TEXT NOT NULL,
    before      JSONB,
    after       JSONB,
    changed_by  BIGINT NOT NULL,
    changed_at  TIMESTAMPTZ NOT NULL DEFAULT now(),
    FOREIGN KEY (shop_id, changed_by) REFERENCES people (shop_id, id)
);
CREATE INDEX shop_changes_shop ON shop_changes (shop_id, changed_at);
CREATE INDEX shop_changes_changed_by ON shop_changes (shop_id, changed_by);
