DROP TABLE shelf_parts;
