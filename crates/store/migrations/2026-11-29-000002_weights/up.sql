-- What counts for the shop when options are ranked; NULL as long as it goes by what the program begins with.
ALTER TABLE shops ADD COLUMN weights JSONB;
