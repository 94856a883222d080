-- What was put on, and how the heights were read, become a sheet of states: empty, loaded, and any more that a shop reads.
-- The aim becomes a sheet with a list of goals. Every row is carried over, with who put it down and when, and which followed which.
ALTER TABLE readings DROP CONSTRAINT readings_load_state_check;
ALTER TABLE readings ADD CONSTRAINT readings_load_state_check CHECK (load_state ~ '^[a-z][a-z_0-9]{1,39}$');

CREATE FUNCTION pg_temp.tape_sheet(rolled BOOLEAN, conditions JSONB, load JSONB) RETURNS JSONB LANGUAGE SQL AS $$
    SELECT jsonb_build_object('states', jsonb_build_array(
        jsonb_strip_nulls(jsonb_build_object(
            'state', 'empty',
            'manner', CASE WHEN rolled THEN 'rolled' ELSE 'as_it_stood' END,
            'floor', NULLIF(conditions ->> 'floor', ''),
            'fuel', NULLIF(conditions ->> 'fuel_empty', ''))),
        jsonb_strip_nulls(jsonb_build_object(
            'state', 'loaded',
            'manner', CASE WHEN rolled THEN 'rolled' ELSE 'as_it_stood' END,
            'floor', NULLIF(conditions ->> 'floor', ''),
            'fuel', NULLIF(conditions ->> 'fuel_loaded', '')))
        || CASE WHEN load IS NULL THEN '{}'::JSONB ELSE jsonb_build_object('load', load) END
    ))
$$;

INSERT INTO job_sheets (shop_id, job_id, kind, entry, recorded_by, recorded_at, withdrawn_at)
    SELECT loads.shop_id, loads.job_id, 'tape', pg_temp.tape_sheet(jobs.rolled_and_bounced, jobs.conditions, loads.entry),
           loads.recorded_by, loads.recorded_at, loads.withdrawn_at
    FROM loads JOIN jobs ON jobs.id = loads.job_id ORDER BY loads.id;
-- A load taken off, or a manner without a load, goes by whoever saved the job last.
INSERT INTO job_sheets (shop_id, job_id, kind, entry, recorded_by, recorded_at)
    SELECT jobs.shop_id, jobs.id, 'tape', pg_temp.tape_sheet(jobs.rolled_and_bounced, jobs.conditions, NULL),
           jobs.revised_by, jobs.revised_at
    FROM jobs
    WHERE NOT EXISTS (SELECT FROM loads WHERE loads.job_id = jobs.id AND loads.withdrawn_at IS NULL)
      AND (jobs.rolled_and_bounced OR jobs.conditions IS NOT NULL
           OR EXISTS (SELECT FROM loads WHERE loads.job_id = jobs.id))
    ORDER BY jobs.id;

INSERT INTO job_sheets (shop_id, job_id, kind, entry, recorded_by, recorded_at, withdrawn_at)
    SELECT shop_id, job_id, 'aim',
           jsonb_strip_nulls(jsonb_build_object('side_to_side', NULLIF(entry -> 'side_to_side', 'null'::JSONB)))
               || jsonb_build_object('goals', jsonb_build_array(entry - 'side_to_side')),
           recorded_by, recorded_at, withdrawn_at
    FROM aims ORDER BY id;

UPDATE job_sheets SET follows = chain.before
    FROM (SELECT id, lag(id) OVER (PARTITION BY job_id, kind ORDER BY id) AS before FROM job_sheets WHERE kind IN ('tape', 'aim')) chain
    WHERE chain.id = job_sheets.id;

-- A correction considered becomes an option of one part.
UPDATE corrections SET entry = jsonb_build_object('parts', jsonb_build_array(jsonb_build_object('correction', entry)));

-- Wishes get types of their own; what was said in words stays in words.
UPDATE job_sheets SET entry = entry - 'budget' - 'wanted_by' - 'shares' || jsonb_build_object(
        'budget_words', COALESCE(entry ->> 'budget', ''),
        'wanted_words', COALESCE(entry ->> 'wanted_by', ''),
        'shares', (SELECT COALESCE(jsonb_agg(jsonb_build_object('of', word, 'percent', entry -> 'shares' -> place) ORDER BY place), '[]')
                   FROM (VALUES (0, 'empty'), (1, 'usual'), (2, 'full')) named (place, word)
                   WHERE jsonb_typeof(entry -> 'shares' -> place) = 'number'))
    WHERE kind = 'intake';
ALTER TABLE shops ADD COLUMN currency TEXT NOT NULL DEFAULT 'USD' CHECK (currency ~ '^[A-Z]{3}$');

-- What was promised when an option was chosen, with all that it was said from; earlier choices have none.
ALTER TABLE fittings ADD COLUMN promise JSONB;

DROP TABLE loads;
DROP TABLE aims;
ALTER TABLE jobs DROP COLUMN rolled_and_bounced, DROP COLUMN conditions;
DROP FUNCTION pg_temp.tape_sheet(BOOLEAN, JSONB, JSONB);
