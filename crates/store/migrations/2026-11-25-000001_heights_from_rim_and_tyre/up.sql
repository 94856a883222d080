-- Two more ways to measure a ride height: from the rim's lower lip, and from the top of the tyre.
ALTER TABLE jobs DROP CONSTRAINT jobs_datum_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_datum_check CHECK (datum IN ('ground_to_arch', 'hub_to_arch', 'rim_to_arch', 'tyre_top_to_arch'));
ALTER TABLE readings DROP CONSTRAINT readings_datum_check;
ALTER TABLE readings ADD CONSTRAINT readings_datum_check CHECK (datum IN ('ground_to_arch', 'hub_to_arch', 'rim_to_arch', 'tyre_top_to_arch'));
