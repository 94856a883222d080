-- The shop's parts. A part that is changed or taken off stays on record, and a changed one knows which it followed: what an option
-- was made of is never lost. What is searched is the part's number, name and supplier in small letters.
CREATE TABLE shelf_parts (
    id            BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id       BIGINT NOT NULL,
    number        TEXT NOT NULL CHECK (number <> ''),
    kind          TEXT NOT NULL CHECK (kind ~ '^[a-z_]{1,40}$'),
    searched      TEXT NOT NULL,
    entry         JSONB NOT NULL,
    follows       BIGINT,
    recorded_by   BIGINT NOT NULL,
    recorded_at   TIMESTAMPTZ NOT NULL DEFAULT now(),
    withdrawn_by  BIGINT,
    withdrawn_at  TIMESTAMPTZ,
    UNIQUE (shop_id, id),
    CHECK ((withdrawn_by IS NULL) = (withdrawn_at IS NULL)),
    FOREIGN KEY (shop_id, follows) REFERENCES shelf_parts (shop_id, id),
    FOREIGN KEY (shop_id, recorded_by) REFERENCES people (shop_id, id),
    FOREIGN KEY (shop_id, withdrawn_by) REFERENCES people (shop_id, id)
);
CREATE UNIQUE INDEX shelf_parts_number ON shelf_parts (shop_id, lower(btrim(number))) WHERE withdrawn_at IS NULL;
CREATE INDEX shelf_parts_kind ON shelf_parts (shop_id, kind) WHERE withdrawn_at IS NULL;
CREATE INDEX shelf_parts_follows ON shelf_parts (shop_id, follows);
CREATE INDEX shelf_parts_recorded_by ON shelf_parts (shop_id, recorded_by);
CREATE INDEX shelf_parts_withdrawn_by ON shelf_parts (shop_id, withdrawn_by);
