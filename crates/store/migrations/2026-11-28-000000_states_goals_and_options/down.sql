-- Only what the older version knows goes back: empty and loaded, and the first goal. States and goals beside them are lost.
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

ALTER TABLE jobs ADD COLUMN rolled_and_bounced BOOLEAN NOT NULL DEFAULT FALSE, ADD COLUMN conditions JSONB;

CREATE FUNCTION pg_temp.state(sheet JSONB, word TEXT) RETURNS JSONB LANGUAGE SQL AS $$
    SELECT jsonb_path_query_first(sheet, '$.states[*] ? (@.state == $word)', jsonb_build_object('word', word))
$$;

UPDATE jobs SET
        rolled_and_bounced = COALESCE(pg_temp.state(sheets.entry, 'empty') ->> 'manner', '') = 'rolled',
        conditions = jsonb_build_object(
            'floor', COALESCE(pg_temp.state(sheets.entry, 'empty') ->> 'floor', ''),
            'fuel_empty', COALESCE(pg_temp.state(sheets.entry, 'empty') ->> 'fuel', ''),
            'fuel_loaded', COALESCE(pg_temp.state(sheets.entry, 'loaded') ->> 'fuel', ''))
    FROM job_sheets sheets
    WHERE sheets.job_id = jobs.id AND sheets.kind = 'tape' AND sheets.withdrawn_at IS NULL;

INSERT INTO loads (shop_id, job_id, entry, recorded_by, recorded_at, withdrawn_at)
    SELECT shop_id, job_id, pg_temp.state(entry, 'loaded') -> 'load', recorded_by, recorded_at, withdrawn_at
    FROM job_sheets
    WHERE kind = 'tape' AND pg_temp.state(entry, 'loaded') -> 'load' IS NOT NULL
      AND pg_temp.state(entry, 'loaded') -> 'load' ->> 'kind' <> 'over'
    ORDER BY id;
INSERT INTO aims (shop_id, job_id, entry, recorded_by, recorded_at, withdrawn_at)
    SELECT shop_id, job_id,
           (entry -> 'goals' -> 0) || jsonb_build_object('side_to_side', COALESCE(entry -> 'side_to_side', 'null'::JSONB)),
           recorded_by, recorded_at, withdrawn_at
    FROM job_sheets WHERE kind = 'aim' AND entry -> 'goals' -> 0 ->> 'kind' <> 'mark' ORDER BY id;

ALTER TABLE fittings DROP COLUMN promise;
ALTER TABLE shops DROP COLUMN currency;
UPDATE job_sheets SET entry = entry - 'budget' - 'wanted_by' - 'budget_words' - 'wanted_words' - 'shares' || jsonb_build_object(
        'budget', trim(COALESCE(entry -> 'budget' ->> 'text', '') || ' ' || COALESCE(entry ->> 'budget_words', '')),
        'wanted_by', trim(COALESCE(entry -> 'wanted_by' ->> 'text', '') || ' ' || COALESCE(entry ->> 'wanted_words', '')),
        'shares', (SELECT jsonb_agg(jsonb_path_query_first(entry, '$.shares[*] ? (@.of == $word).percent', jsonb_build_object('word', word)) ORDER BY place)
                   FROM (VALUES (0, 'empty'), (1, 'usual'), (2, 'full')) named (place, word)))
    WHERE kind = 'intake';

-- Half of what was chosen together must not be taken for the whole of it: such options come off the list.
UPDATE fittings SET withdrawn_at = COALESCE(withdrawn_at, now()) WHERE correction_id IN
    (SELECT id FROM corrections WHERE jsonb_array_length(entry -> 'parts') > 1);
UPDATE corrections SET withdrawn_at = COALESCE(withdrawn_at, now()) WHERE jsonb_array_length(entry -> 'parts') > 1;
UPDATE corrections SET entry = entry -> 'parts' -> 0 -> 'correction';

UPDATE job_sheets SET follows = NULL WHERE kind IN ('tape', 'aim');
DELETE FROM job_sheets WHERE kind IN ('tape', 'aim');
DELETE FROM readings WHERE load_state NOT IN ('empty', 'loaded');
ALTER TABLE readings DROP CONSTRAINT readings_load_state_check;
ALTER TABLE readings ADD CONSTRAINT readings_load_state_check CHECK (load_state IN ('empty', 'loaded'));
DROP FUNCTION pg_temp.state(JSONB, TEXT);
