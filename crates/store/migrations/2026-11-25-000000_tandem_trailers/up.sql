-- A tandem trailer: how far apart its axles stand, and whether rockers make them carry alike.
ALTER TABLE jobs DROP CONSTRAINT jobs_vehicle_class_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_vehicle_class_check CHECK (vehicle_class IN
    ('half_ton_pickup', 'one_ton_pickup', 'flatbed', 'van', 'box_truck', 'motorhome', 'tandem_trailer'));
ALTER TABLE jobs ADD COLUMN axle_spread JSONB;
ALTER TABLE jobs ADD COLUMN equalised BOOLEAN NOT NULL DEFAULT TRUE;
ALTER TABLE jobs ADD CONSTRAINT jobs_axle_spread_check CHECK (axle_spread IS NULL OR vehicle_class = 'tandem_trailer');
