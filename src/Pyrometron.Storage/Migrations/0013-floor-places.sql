-- Where a machine stands on its zone's floor plan, in cells.
ALTER TABLE asset ADD COLUMN place_column INTEGER;
ALTER TABLE asset ADD COLUMN place_row INTEGER;
