UPDATE jobs SET vehicle_class = 'tandem_trailer' WHERE vehicle_class IN ('single_trailer', 'triple_trailer');
ALTER TABLE jobs DROP CONSTRAINT jobs_axle_spread_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_axle_spread_check CHECK (axle_spread IS NULL OR vehicle_class = 'tandem_trailer');
ALTER TABLE jobs DROP CONSTRAINT jobs_vehicle_class_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_vehicle_class_check CHECK (vehicle_class IN
    ('half_ton_pickup', 'one_ton_pickup', 'flatbed', 'van', 'box_truck', 'motorhome', 'tandem_trailer'));
