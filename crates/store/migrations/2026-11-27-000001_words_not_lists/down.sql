ALTER TABLE job_sheets DROP CONSTRAINT job_sheets_kind_check;
ALTER TABLE job_sheets ADD CONSTRAINT job_sheets_kind_check CHECK (kind IN ('intake', 'load_plan', 'look_over', 'drive', 'bench'));
ALTER TABLE jobs DROP CONSTRAINT jobs_vehicle_class_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_vehicle_class_check CHECK (vehicle_class IN
    ('half_ton_pickup', 'one_ton_pickup', 'flatbed', 'van', 'box_truck', 'motorhome',
     'single_trailer', 'tandem_trailer', 'triple_trailer'));
ALTER TABLE jobs DROP CONSTRAINT jobs_axle_spread_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_axle_spread_check
    CHECK (axle_spread IS NULL OR vehicle_class IN ('tandem_trailer', 'triple_trailer'));
ALTER TABLE jobs DROP CONSTRAINT jobs_datum_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_datum_check CHECK (datum IN ('ground_to_arch', 'hub_to_arch', 'rim_to_arch', 'tyre_top_to_arch'));
ALTER TABLE readings DROP CONSTRAINT readings_datum_check;
ALTER TABLE readings ADD CONSTRAINT readings_datum_check CHECK (datum IN ('ground_to_arch', 'hub_to_arch', 'rim_to_arch', 'tyre_top_to_arch'));
ALTER TABLE readings DROP CONSTRAINT readings_place_check;
ALTER TABLE readings ADD CONSTRAINT readings_place_check CHECK (place IN (
    'front_left', 'front_right', 'rear_left', 'rear_right', 'stop_gap',
    'hub_front', 'hub_rear', 'step', 'hitch', 'frame_rail', 'headlamp', 'arch_left', 'arch_right',
    'weight_front_left', 'weight_front_right', 'weight_rear_left', 'weight_rear_right', 'weight_front', 'weight_rear',
    'shackle_left', 'shackle_right', 'pinion', 'frame_angle',
    'tyre_front_left', 'tyre_front_right', 'tyre_rear_left', 'tyre_rear_right'));
ALTER TABLE readings DROP CONSTRAINT readings_value_unit_check;
ALTER TABLE readings ADD CONSTRAINT readings_value_unit_check CHECK (value_unit IN ('in', 'mm', 'lb', 'kg', 'deg', 'psi', 'kpa'));
