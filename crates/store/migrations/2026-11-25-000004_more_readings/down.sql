ALTER TABLE jobs DROP COLUMN conditions;
ALTER TABLE readings DROP COLUMN withdrawn_why;
DELETE FROM readings WHERE place NOT IN ('front_left', 'front_right', 'rear_left', 'rear_right', 'stop_gap');
ALTER TABLE readings DROP CONSTRAINT readings_place_check;
ALTER TABLE readings ADD CONSTRAINT readings_place_check
    CHECK (place IN ('front_left', 'front_right', 'rear_left', 'rear_right', 'stop_gap'));
ALTER TABLE readings DROP CONSTRAINT readings_value_unit_check;
ALTER TABLE readings RENAME COLUMN value_text TO height_text;
ALTER TABLE readings RENAME COLUMN value_unit TO height_unit;
ALTER TABLE readings RENAME COLUMN value_si TO height_m;
ALTER TABLE readings ADD CONSTRAINT readings_height_unit_check CHECK (height_unit IN ('in', 'mm'));
