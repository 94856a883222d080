DROP TABLE papers;
ALTER TABLE shops DROP COLUMN terms;
ALTER TABLE readings DROP CONSTRAINT readings_phase_check;
ALTER TABLE readings ADD CONSTRAINT readings_phase_check CHECK (phase IN ('found', 'fitted'));
