-- Heights without the tyre in them were all read from the hub before; how far from it is not known.
UPDATE jobs SET datum = 'hub_to_arch' WHERE datum IN ('rim_to_arch', 'tyre_top_to_arch');
UPDATE readings SET datum = 'hub_to_arch' WHERE datum IN ('rim_to_arch', 'tyre_top_to_arch');
ALTER TABLE jobs DROP CONSTRAINT jobs_datum_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_datum_check CHECK (datum IN ('ground_to_arch', 'hub_to_arch'));
ALTER TABLE readings DROP CONSTRAINT readings_datum_check;
ALTER TABLE readings ADD CONSTRAINT readings_datum_check CHECK (datum IN ('ground_to_arch', 'hub_to_arch'));
