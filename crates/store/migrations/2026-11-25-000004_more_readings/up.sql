-- A reading may be a weight, an angle or a pressure, and a corrected one says why.
ALTER TABLE readings RENAME COLUMN height_text TO value_text;
ALTER TABLE readings RENAME COLUMN height_unit TO value_unit;
ALTER TABLE readings RENAME COLUMN height_m TO value_si;
ALTER TABLE readings DROP CONSTRAINT readings_height_unit_check;
ALTER TABLE readings ADD CONSTRAINT readings_value_unit_check CHECK (value_unit IN ('in', 'mm', 'lb', 'kg', 'deg', 'psi', 'kpa'));
ALTER TABLE readings DROP CONSTRAINT readings_place_check;
ALTER TABLE readings ADD CONSTRAINT readings_place_check CHECK (place IN (
    'front_left', 'front_right', 'rear_left', 'rear_right', 'stop_gap',
    'hub_front', 'hub_rear', 'step', 'hitch', 'frame_rail', 'headlamp', 'arch_left', 'arch_right',
    'weight_front_left', 'weight_front_right', 'weight_rear_left', 'weight_rear_right', 'weight_front', 'weight_rear',
    'shackle_left', 'shackle_right', 'pinion', 'frame_angle',
    'tyre_front_left', 'tyre_front_right', 'tyre_rear_left', 'tyre_rear_right'));
ALTER TABLE readings ADD COLUMN withdrawn_why TEXT;
-- What the readings of a state were taken on: floor, and fuel in the tank.
ALTER TABLE jobs ADD COLUMN conditions JSONB;
