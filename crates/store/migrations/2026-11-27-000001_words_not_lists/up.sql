-- Which words there are is the program's to say, which reads nothing else back: a new kind of sheet, place, datum, unit or class
-- needs no change here. What is no word at all is still refused.
ALTER TABLE job_sheets DROP CONSTRAINT job_sheets_kind_check;
ALTER TABLE job_sheets ADD CONSTRAINT job_sheets_kind_check CHECK (kind ~ '^[a-z][a-z_0-9]{1,39}$');
ALTER TABLE jobs DROP CONSTRAINT jobs_vehicle_class_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_vehicle_class_check CHECK (vehicle_class ~ '^[a-z][a-z_0-9]{1,39}$');
ALTER TABLE jobs DROP CONSTRAINT jobs_axle_spread_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_axle_spread_check CHECK (axle_spread IS NULL OR vehicle_class LIKE '%\_trailer');
ALTER TABLE jobs DROP CONSTRAINT jobs_datum_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_datum_check CHECK (datum ~ '^[a-z][a-z_0-9]{1,39}$');
ALTER TABLE readings DROP CONSTRAINT readings_datum_check;
ALTER TABLE readings ADD CONSTRAINT readings_datum_check CHECK (datum ~ '^[a-z][a-z_0-9]{1,39}$');
ALTER TABLE readings DROP CONSTRAINT readings_place_check;
ALTER TABLE readings ADD CONSTRAINT readings_place_check CHECK (place ~ '^[a-z][a-z_0-9]{1,39}$');
ALTER TABLE readings DROP CONSTRAINT readings_value_unit_check;
ALTER TABLE readings ADD CONSTRAINT readings_value_unit_check CHECK (value_unit ~ '^[a-z][a-z_0-9]{0,39}$');
