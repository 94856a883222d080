-- There was no such class before: its jobs go back to the nearest there was, with their readings.
UPDATE jobs SET axle_spread = NULL, vehicle_class = 'flatbed' WHERE vehicle_class = 'tandem_trailer';
ALTER TABLE jobs DROP COLUMN axle_spread;
ALTER TABLE jobs DROP COLUMN equalised;
ALTER TABLE jobs DROP CONSTRAINT jobs_vehicle_class_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_vehicle_class_check CHECK (vehicle_class IN
    ('half_ton_pickup', 'one_ton_pickup', 'flatbed', 'van', 'box_truck', 'motorhome'));
